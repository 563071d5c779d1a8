import { scaleLinear } from 'd3-scale';
import { memo } from 'react';
import type { Range } from '@/core';
import { timeTicks } from '@/ui/parts/timeTicks';
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

function Marks({ left, width, y, window }: { left: number; width: number; y: number; window: Range }) {
  const x = scaleLinear()
    .domain(window)
    .range([left, left + width]);
  const fine = x.ticks(Math.max(2, Math.floor(width / 14)));
  const said = timeTicks(x, FIGURE).filter(({ t }) => x(t) <= left + width - FIGURE / 2);
  const long = new Set(said.map(({ t }) => t));
  return (
    <>
      <path d={fine.map((t) => `M${x(t)},${y}v${long.has(t) ? 6 : 3}`).join('')} stroke={ink.softInk} />
      {said.map(({ t, says }) => (
        <text key={t} x={x(t)} y={y + 17} textAnchor={x(t) < left + FIGURE / 2 ? 'start' : 'middle'}>
          {says}
        </text>
      ))}
    </>
  );
}
