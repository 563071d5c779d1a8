'use client';
import { useStore } from 'zustand';
import { showNumber } from '@/core';
import type { Range } from '@/core';
import { moment } from '@/ui/session/moment';
import { fonts, ink } from '@/ui/theme/tokens';
import type { FrameView } from './frames';
import { voltsAt } from './geometry';
import type { Layout, Volts } from './geometry';
import { boundReach, clearBaseline, LETTER, traceReach } from './labels';
import type { Reach } from './labels';

/** Closer together than this, the least and the greatest of a column are one figure. */
const ONE = 0.05;

const said = ([low, high]: Volts): string =>
  high - low < ONE ? showNumber((low + high) / 2, 2, true) : `${showNumber(low, 1, true)}…${showNumber(high, 1, true)}`;

/** Beside the hairline, pixels. */
const BESIDE = 6;
/** The mark of what is found stands at the right of a frame's head, the numbers at its bounds at the left. */
const HEAD = 20;
const NUMBERS = 52;

/** Where the figure stands: left or right of the hairline, near its volts, on neither the trace nor another number. */
export function placed(view: FrameView, layout: Layout, i: number, share: number, text: string) {
  const [left, width] = [layout.x[i] ?? 0, layout.w[i] ?? 0];
  const { picture } = view;
  const volts = picture && voltsAt(picture, share);
  const wanted = (volts ? layout.y((volts[0] + volts[1]) / 2) : layout.top) - BESIDE;
  const long = text.length * LETTER + BESIDE;
  const at = left + share * width;
  const sides = (share > 0.4 ? [true, false] : [false, true]).flatMap((toLeft) => {
    const [from, to] = toLeft ? [at - long, at] : [at, at + long];
    if (from < left || to > left + width) return [];
    const blocked: Reach[] = [
      ...(picture ? traceReach(picture, (from - left) / width, (to - left) / width, layout.y) : []),
      ...(from < left + NUMBERS ? boundReach(view.bound, layout.y) : []),
    ];
    const y = clearBaseline(wanted, blocked, [layout.top + HEAD, layout.bottom]);
    return y === null ? [] : [{ left: toLeft, y, clear: true }];
  });
  const [first, second] = sides;
  // The other side only where it is much nearer.
  const best = first && second && Math.abs(second.y - wanted) + 24 < Math.abs(first.y - wanted) ? second : first;
  const y = Math.min(layout.bottom - BESIDE, Math.max(layout.top + HEAD + 4, wanted));
  return best ?? { left: share > 0.4, y, clear: false };
}

/** The moment pointed at: a hairline through every frame, and the volts there. */
export function MomentMarks({ views, layout, window }: { views: readonly FrameView[]; layout: Layout; window: Range }) {
  const at = useStore(moment, (s) => s.at);
  if (at === null) return null;
  const share = (at - window[0]) / (window[1] - window[0]);
  if (share < 0 || share > 1) return null;
  return (
    <g pointerEvents="none" data-moment={at.toFixed(3)} fontFamily={fonts.numbers} fontSize="12">
      {views.map((view, i) => {
        const volts = view.picture && voltsAt(view.picture, share);
        if (!volts) return null;
        const x = (layout.x[i] ?? 0) + share * (layout.w[i] ?? 0);
        const y = layout.y((volts[0] + volts[1]) / 2);
        const text = said(volts);
        const place = layout.folded[i] ? null : placed(view, layout, i, share, text);
        return (
          <g key={view.key}>
            <line x1={x} x2={x} y1={layout.top} y2={layout.bottom} stroke={ink.wanted} strokeWidth="1" />
            <circle cx={x} cy={y} r="3" fill={ink.wanted} />
            {place && (
              <text
                x={x + (place.left ? -BESIDE : BESIDE)}
                y={place.y}
                textAnchor={place.left ? 'end' : 'start'}
                fill={ink.ink}
                stroke={ink.paper}
                strokeWidth="4"
                paintOrder="stroke"
                data-moment-volts={view.id}
              >
                {text}
              </text>
            )}
          </g>
        );
      })}
    </g>
  );
}

/** Where in the window a point over the frames lies, seconds; null between them. */
export function momentUnder(px: number, layout: Layout, [from, to]: Range): number | null {
  const i = layout.x.findIndex((x, k) => px >= x && px <= x + (layout.w[k] ?? 0));
  return i < 0 ? null : from + ((px - (layout.x[i] ?? 0)) / (layout.w[i] ?? 1)) * (to - from);
}
