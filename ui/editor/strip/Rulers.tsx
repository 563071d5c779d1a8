import { memo } from 'react';
import { showNumber, showQuantity } from '@/core';
import { fonts, ink } from '@/ui/theme/tokens';
import type { EndView } from './frames';
import { RULER, sameLayout } from './geometry';
import type { Layout } from './geometry';
import { roomyTicks } from './labels';

/** Volts at the left edge, and hairlines across all frames. */
export const VoltsRuler = memo(
  function VoltsRuler({ layout }: { layout: Layout }) {
    const { y, top } = layout;
    const right = (layout.x.at(-1) ?? 0) + (layout.w.at(-1) ?? 0);
    const ticks = roomyTicks(y, Math.max(4, Math.floor((layout.bottom - top) / 36)));
    const digits = ticks.every(Number.isInteger) ? 0 : 1;
    return (
      <g pointerEvents="none">
        <text x={RULER - 10} y={top - 10} fontSize="12" fill={ink.softInk} textAnchor="end">
          V
        </text>
        {ticks.map((v) => (
          <g key={v}>
            <line
              x1={RULER - 6}
              x2={right}
              y1={y(v)}
              y2={y(v)}
              stroke={v === 0 ? ink.softInk : ink.line}
              strokeWidth="0.75"
            />
            <text x={RULER - 10} y={y(v) + 4} fontSize="12" fontFamily={fonts.numbers} fill={ink.ink} textAnchor="end">
              {showNumber(v, digits, true)}
            </text>
          </g>
        ))}
      </g>
    );
  },
  (a, b) => sameLayout(a.layout, b.layout),
);

/** The destination's active window, and its own unit, at the right edge of the last frame. */
export function UnitRuler({ layout, end }: { layout: Layout; end: EndView }) {
  const { spec, params, window } = end;
  if (!spec || !window) return null;
  const { y } = layout;
  const [least = 0, most = 0] = y.domain();
  const [low, high] = [Math.max(window[0], least), Math.min(window[1], most)];
  const x = (layout.x.at(-1) ?? 0) + (layout.w.at(-1) ?? 0);
  const unit = spec.unit(params);
  const inside = roomyTicks(y, 7).filter((v) => v > low && v < high && Math.min(y(v) - y(high), y(low) - y(v)) > 15);
  // A window of a hair's breadth has one figure.
  const marks = high <= low ? [] : y(low) - y(high) > 15 ? [low, ...inside, high] : [high];
  return (
    <g pointerEvents="none">
      <rect
        x={x + 1}
        y={y(high)}
        width="4"
        height={Math.max(1, y(low) - y(high))}
        fill={ink.softInk}
        fillOpacity="0.55"
      >
        <title>Control range</title>
      </rect>
      {marks.map((v) => (
        <g key={v}>
          <line x1={x + 1} x2={x + 10} y1={y(v)} y2={y(v)} stroke={ink.ink} />
          <text x={x + 13} y={y(v) + 4} fontSize="12" fontFamily={fonts.numbers} fill={ink.ink}>
            {showQuantity(spec.value(params, v), unit)}
          </text>
        </g>
      ))}
    </g>
  );
}
