'use client';
import { useStore } from 'zustand';
import { showNumber } from '@/core';
import type { Range } from '@/core';
import { moment } from '@/ui/session/moment';
import { fonts, ink } from '@/ui/theme/tokens';
import type { FrameView } from './frames';
import { voltsAt } from './geometry';
import type { Layout, Volts } from './geometry';

/** Closer together than this, the least and the greatest of a column are one figure. */
const ONE = 0.05;

const said = ([low, high]: Volts): string =>
  high - low < ONE ? showNumber((low + high) / 2, 2, true) : `${showNumber(low, 1, true)}…${showNumber(high, 1, true)}`;

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
        const right = share > 0.4;
        return (
          <g key={view.key}>
            <line x1={x} x2={x} y1={layout.top} y2={layout.bottom} stroke={ink.wanted} strokeWidth="1" />
            <circle cx={x} cy={y} r="3" fill={ink.wanted} />
            {!layout.folded[i] && (
              <text
                x={x + (right ? -6 : 6)}
                y={Math.min(layout.bottom - 6, Math.max(layout.top + 24, y - 6))}
                textAnchor={right ? 'end' : 'start'}
                fill={ink.ink}
                stroke={ink.paper}
                strokeWidth="4"
                paintOrder="stroke"
                data-moment-volts={view.id}
              >
                {said(volts)}
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
