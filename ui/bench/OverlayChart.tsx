import Box from '@mui/material/Box';
import { scaleLinear } from 'd3-scale';
import { area } from 'd3-shape';
import { showNumber, withUnit } from '@/core';
import { fonts, ink } from '@/ui/theme/tokens';
import type { OverlayAnswer } from '@/wire/benchJobs';

type Columns = readonly (readonly [number, number])[];

const WIDTH = 480;
const LEFT = 44;
const TALL = 170;
const SHORT = 80;

const extentOf = (all: readonly Columns[]): [number, number] => {
  let [low, high] = [Infinity, -Infinity];
  for (const [a, b] of all.flat()) [low, high] = [Math.min(low, a), Math.max(high, b)];
  const room = Math.max(1e-3, 0.06 * (high - low));
  return [low - room, high + room];
};

interface PlotProps {
  readonly label: string;
  readonly height: number;
  readonly traces: readonly { readonly columns: Columns; readonly colour: string; readonly dashed?: boolean }[];
}

/** Traces as their least and greatest, on one ruler. */
function Plot({ label, height, traces }: PlotProps) {
  const y = scaleLinear(extentOf(traces.map((t) => t.columns)), [height - 4, 4]);
  const ticks = y.ticks(height > 100 ? 5 : 3);
  return (
    <svg viewBox={`0 0 ${WIDTH} ${height}`} width="100%" role="img" aria-label={label}>
      {ticks.map((v) => (
        <g key={v}>
          <line x1={LEFT} x2={WIDTH} y1={y(v)} y2={y(v)} stroke={ink.line} strokeWidth={v === 0 ? 1.5 : 0.75} />
          <text x={LEFT - 6} y={y(v) + 4} textAnchor="end" fontSize={11} fill={ink.softInk} fontFamily={fonts.numbers}>
            {showNumber(v, height > 100 ? 1 : 2)}
          </text>
        </g>
      ))}
      {traces.map(({ columns, colour, dashed }, i) => {
        const x = scaleLinear([0, Math.max(1, columns.length - 1)], [LEFT, WIDTH]);
        const shape = area<readonly [number, number]>(
          (_, k) => x(k),
          ([a]) => y(a),
          ([, b]) => y(b),
        );
        return (
          <path
            key={i}
            d={shape(columns as [number, number][]) ?? ''}
            fill={colour}
            stroke={colour}
            strokeWidth={1.5}
            strokeDasharray={dashed ? '5 4' : undefined}
            fillOpacity={dashed ? 0 : 1}
          />
        );
      })}
    </svg>
  );
}

/** A recording over its prediction, and the difference below it. */
export function OverlayChart({ answer }: { readonly answer: OverlayAnswer }) {
  const { predicted, recorded, difference } = answer.columns;
  return (
    <Box>
      <Box sx={{ display: 'flex', gap: 2, fontSize: 13 }}>
        <Box sx={{ color: ink.trace }}>— recorded</Box>
        <Box sx={{ color: ink.wanted }}>- - predicted</Box>
        <Box sx={{ flex: 1 }} />
        <Box sx={{ color: ink.softInk }}>{withUnit(showNumber(answer.seconds, 2), 's')}</Box>
      </Box>
      <Plot
        label="The recording over the prediction, volts"
        height={TALL}
        traces={[
          { columns: recorded, colour: ink.trace },
          { columns: predicted, colour: ink.wanted, dashed: true },
        ]}
      />
      <Box sx={{ fontSize: 13, color: ink.softInk }}>Difference, volts</Box>
      <Plot label="The difference, volts" height={SHORT} traces={[{ columns: difference, colour: ink.softInk }]} />
    </Box>
  );
}
