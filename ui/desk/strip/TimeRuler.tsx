import { scaleLinear } from 'd3-scale';
import { memo } from 'react';
import { briefSeconds } from '@/core';
import type { Range } from '@/core';
import { fonts, ink } from '@/ui/theme/tokens';
import { sameLayout } from './geometry';
import type { Layout } from './geometry';

/** Room for one figure, pixels. */
const FIGURE = 52;

interface Props {
  readonly layout: Layout;
  readonly window: Range;
}

/** The same seconds under every open frame: fine marks, and figures where they fit. */
export const TimeRuler = memo(
  function TimeRuler({ layout, window }: Props) {
    return (
      <g pointerEvents="none" fontFamily={fonts.numbers} fontSize="11" fill={ink.softInk} data-time-ruler>
        {layout.x.map((x, i) =>
          layout.folded[i] ? null : (
            <Marks key={i} left={x} width={layout.w[i] ?? 0} y={layout.bottom} window={window} />
          ),
        )}
      </g>
    );
  },
  (a, b) => a.window[0] === b.window[0] && a.window[1] === b.window[1] && sameLayout(a.layout, b.layout),
);

/** Every so many of even ticks, so that each has its room: a scale may make more than it was asked for. */
function apart(ticks: readonly number[], x: (t: number) => number): readonly number[] {
  const step = x(ticks[1] ?? 0) - x(ticks[0] ?? 0);
  const every = step > 0 ? Math.ceil(FIGURE / step) : 1;
  return ticks.filter((_, i) => i % every === 0);
}

function Marks({ left, width, y, window }: { left: number; width: number; y: number; window: Range }) {
  const x = scaleLinear()
    .domain(window)
    .range([left, left + width]);
  const fine = x.ticks(Math.max(2, Math.floor(width / 14)));
  const said = apart(x.ticks(Math.max(1, Math.floor(width / FIGURE))), x).filter(
    (t) => x(t) <= left + width - FIGURE / 2,
  );
  return (
    <>
      <path d={fine.map((t) => `M${x(t)},${y}v${said.includes(t) ? 6 : 3}`).join('')} stroke={ink.softInk} />
      {said.map((t) => (
        <text key={t} x={x(t)} y={y + 17} textAnchor={x(t) < left + FIGURE / 2 ? 'start' : 'middle'}>
          {briefSeconds(t)}
        </text>
      ))}
    </>
  );
}
