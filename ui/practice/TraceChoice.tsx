import Box from '@mui/material/Box';
import ButtonBase from '@mui/material/ButtonBase';
import { scaleLinear } from 'd3-scale';
import { line } from 'd3-shape';
import { showNumber } from '@/core';
import type { Choice } from '@/core/practice';
import { fonts, ink } from '@/ui/theme/tokens';
import { traceText } from './traceText';

interface Props {
  readonly choices: readonly Choice[];
  readonly onChoose: (choice: number) => void;
}

const SIZE = { width: 180, height: 110 } as const;
const LEFT = 26;

/** Voltages over time on one ruler: which of them is it? */
export function TraceChoice({ choices, onChoose }: Props) {
  const all = choices.flatMap((c) => c.trace ?? []);
  const [low, high] = [Math.min(0, ...all), Math.max(0, ...all)];
  const y = scaleLinear()
    .domain([low, high])
    .nice()
    .range([SIZE.height - 8, 8]);
  const [bottom = low, top = high] = y.domain();
  return (
    <Box sx={{ display: 'grid', gridTemplateColumns: 'repeat(auto-fill, minmax(170px, 1fr))', gap: 1 }}>
      {choices.map(({ text, trace = [] }, i) => {
        const x = scaleLinear()
          .domain([0, Math.max(1, trace.length - 1)])
          .range([LEFT, SIZE.width - 4]);
        const d = line<number>()
          .x((_, k) => x(k))
          .y((v) => y(v))([...trace]);
        return (
          <ButtonBase
            key={text}
            onClick={() => onChoose(i)}
            data-choice={i}
            aria-label={`Trace ${text}: ${traceText(trace)}`}
            sx={{ border: `1px solid ${ink.line}`, borderRadius: 1, display: 'block', textAlign: 'left', p: 0.5 }}
          >
            <Box sx={{ fontWeight: 700, pl: 0.5 }}>{text}</Box>
            <svg viewBox={`0 0 ${SIZE.width} ${SIZE.height}`} width="100%" aria-hidden>
              {[bottom, 0, top].map((v) => (
                <g key={v}>
                  <line x1={LEFT} x2={SIZE.width - 4} y1={y(v)} y2={y(v)} stroke={ink.line} />
                  <text
                    x={LEFT - 3}
                    y={y(v) + 4}
                    textAnchor="end"
                    fontSize="10"
                    fontFamily={fonts.numbers}
                    fill={ink.softInk}
                  >
                    {showNumber(v, 0)}
                  </text>
                </g>
              ))}
              <path d={d ?? ''} fill="none" stroke={ink.trace} strokeWidth="1.5" />
            </svg>
          </ButtonBase>
        );
      })}
    </Box>
  );
}
