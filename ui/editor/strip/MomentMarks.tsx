'use client';
import { useStore } from 'zustand';
import { showNumber } from '@/core';
import type { Range } from '@/core';
import { moment } from '@/ui/session/moment';
import { fonts, ink } from '@/ui/theme/tokens';
import type { FrameView } from './frames';
import { voltsAt } from './geometry';
import type { Layout, Volts } from './geometry';
import { boundReach, boundWidth, clearBaseline, EDGE, figureWidth, traceReach } from './labels';
import type { Reach } from './labels';

/** Closer together than this, the least and the greatest of a column are one figure. */
const ONE = 0.05;

/** The volts of a moment in writing. */
export const said = ([low, high]: Volts): string =>
  high - low < ONE ? showNumber((low + high) / 2, 2, true) : `${showNumber(low, 1, true)}…${showNumber(high, 1, true)}`;

/** Beside the hairline, pixels. */
const BESIDE = 4;
/** The mark of what is found stands at the right of a frame's head. */
const HEAD = 20;
/** At the right of the last frame stand the handles of what is wanted. */
const HANDLES = 26;
/** What a figure goes up or down rather than lie over the hairline, pixels. */
const FAR = 24;

/** Where the figure may begin: right and left of the hairline, and moved along the frame as far as it has to be inside. */
function starts(at: number, long: number, left: number, width: number, kept: number): number[] {
  // A figure wider than its frame stands over both its edges alike.
  const free = Math.max(long, width - kept);
  const [first, last] = long > width ? [left + (width - long) / 2, left] : [left, left + free - long];
  return [at + BESIDE, at - BESIDE - long, first, last].map((x) => Math.max(first, Math.min(last, x)));
}

/**
 * Where the figure stands: beside the hairline and near its volts, on neither the trace nor another number.
 *
 * @returns its left edge and base line; `clear` is false where nothing but the trace is there to stand on.
 */
export function placed(view: FrameView, layout: Layout, i: number, share: number, text: string) {
  const [left, width] = [layout.x[i] ?? 0, layout.w[i] ?? 0];
  const { picture } = view;
  const volts = picture && voltsAt(picture, share);
  const wanted = (volts ? layout.y((volts[0] + volts[1]) / 2) : layout.top) - BESIDE;
  const long = figureWidth(text);
  const at = left + share * width;
  const begins = starts(at, long, left, width, i === layout.x.length - 1 ? HANDLES : 0);
  const places = begins.flatMap((x) => {
    const blocked: Reach[] = [
      ...(picture ? traceReach(picture, (x - left) / width, (x + long - left) / width, layout.y) : []),
      ...(x < left + boundWidth(view.arrives) ? boundReach(view.arrives, layout.y) : []),
    ];
    const y = clearBaseline(wanted, blocked, [layout.top + HEAD, layout.bottom]);
    if (y === null) return [];
    // Over the hairline, or far from it, only where that is much nearer to the volts.
    const beside = x >= at || x + long <= at;
    return [{ x, y, cost: Math.abs(y - wanted) + Math.abs(x + long / 2 - at) / 8 + (beside ? 0 : FAR) }];
  });
  const [best] = places.toSorted((a, b) => a.cost - b.cost);
  if (best) return { x: best.x, y: best.y, clear: true };
  const y = Math.min(layout.bottom - BESIDE, Math.max(layout.top + HEAD + 4, wanted));
  return { x: begins[0] ?? left, y, clear: false };
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
                x={place.x + EDGE}
                y={place.y}
                fill={ink.ink}
                stroke={ink.paper}
                strokeWidth={2 * EDGE}
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
