'use client';
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import { scaleLinear } from 'd3-scale';
import { area } from 'd3-shape';
import { useEffect, useRef } from 'react';
import { showNumber } from '@/core';
import type { Prediction } from '@/core';
import { headingStyle } from '@/ui/theme/tokens';
import { useSize } from '@/ui/parts/useSize';
import { meters } from '@/ui/session/meters';
import type { Running } from '@/ui/session/meters';
import { fonts, ink } from '@/ui/theme/tokens';
import type { Pin } from './pins';

interface Props {
  readonly pins: readonly Pin[];
  readonly prediction: Prediction;
  /** The scope over the whole window is wanted instead. */
  readonly onWindow: () => void;
}

type Range = readonly [number, number];

/** How far all that is pinned can go, volts; with some room where it stands still. */
function rangeOf({ outputs, inputs }: Prediction, pins: readonly Pin[]): Range {
  const bounds = pins.flatMap(({ socket }) => (outputs[socket] ?? inputs[socket])?.bound ?? []);
  const [low, high] = bounds.length > 0 ? [Math.min(...bounds), Math.max(...bounds)] : [-5, 5];
  return low === high ? [low - 1, high + 1] : [low, high];
}

const scaleOf = (range: Range) =>
  scaleLinear()
    .domain([...range])
    .range([HEIGHT - 8, 8]);

const HEIGHT = 150;
const LEFT = 44;
/** Told apart by their dashes, not by colour alone: columns that are drawn, and such that are left out. */
const DASHES: readonly (readonly [on: number, off: number])[] = [
  [1, 0],
  [7, 3],
  [2, 2],
  [12, 3],
];
/** Pairs of a running trace that make one column: finer than that nobody sees, and each costs in every frame. */
const PER_COLUMN = 3;
/** A trace that stands still is drawn so thick, pixels. */
const THIN = 1.6;
/** A layer of its own: what moves in every frame does not make the ruler be painted anew. */
const above = { position: 'absolute', left: 0, top: 0, willChange: 'transform' } as const;

/** What is pinned, as it is heard: the last four seconds, the present at the right. */
export function LiveTraces({ pins, prediction, onWindow }: Props) {
  const [box, { width }] = useSize<HTMLDivElement>({ width: 640, height: HEIGHT });
  const group = useRef<SVGGElement>(null);
  const [low, high] = rangeOf(prediction, pins);
  const y = scaleOf([low, high]);
  useEffect(() => {
    let frame = 0;
    const scale = scaleOf([low, high]);
    const draw = (): void => {
      [...(group.current?.children ?? [])].forEach((path, i) => {
        const running = meters.trace((path as SVGPathElement).dataset.running ?? '');
        const dash = DASHES[i % DASHES.length] as (typeof DASHES)[number];
        if (running) path.setAttribute('d', shapeOf(running, width, scale, dash));
      });
      frame = requestAnimationFrame(draw);
    };
    frame = requestAnimationFrame(draw);
    return () => cancelAnimationFrame(frame);
  }, [pins, low, high, width]);
  return (
    <Box
      ref={box}
      data-running-traces
      sx={{ order: { xs: 3, md: 0 }, flexShrink: 0, px: 2, py: 1, borderTop: `1px solid ${ink.line}` }}
    >
      <Head pins={pins} onWindow={onWindow} />
      <Box sx={{ position: 'relative' }}>
        <svg
          width="100%"
          height={HEIGHT}
          role="img"
          aria-label={`Live: ${pins.map((p) => p.label).join(', ')}, the last four seconds`}
        >
          {y.ticks(3).map((v) => (
            <g key={v}>
              <line x1={LEFT} x2={width} y1={y(v)} y2={y(v)} stroke={ink.line} />
              <text
                x={LEFT - 6}
                y={y(v) + 4}
                textAnchor="end"
                fontSize="12"
                fontFamily={fonts.numbers}
                fill={ink.softInk}
              >
                {showNumber(v, 0, true)}
              </text>
            </g>
          ))}
        </svg>
        <svg width={width} height={HEIGHT} style={{ ...above, clipPath: `inset(0 0 0 ${LEFT}px)` }} aria-hidden>
          <g ref={group}>
            {pins.map((pin, i) => (
              <path
                key={pin.socket}
                data-running={pin.socket}
                fill={i === 0 ? ink.trace : ink.wanted}
                fillOpacity={i < 2 ? 0.8 : 0.5}
              />
            ))}
          </g>
        </svg>
      </Box>
    </Box>
  );
}

/** A trace as an area between its least and its greatest, column by column; its dashes move along with it. */
function shapeOf(
  { low, high }: Running,
  width: number,
  y: (v: number) => number,
  [on, off]: readonly [on: number, off: number],
): string {
  const step = (width - LEFT) / low.length;
  const first = meters.pairs - low.length;
  const columns = Array.from({ length: Math.floor(low.length / PER_COLUMN) }, (_, i) => {
    const column = Math.ceil(first / PER_COLUMN) + i;
    const from = column * PER_COLUMN - first;
    return { column, from, ...reachOf(low, high, from) };
  });
  return (
    area<(typeof columns)[number]>()
      .defined(({ column }) => ((column % (on + off)) + on + off) % (on + off) < on)
      .x((c) => LEFT + c.from * step)
      .y0((c) => y(c.least) + THIN / 2)
      .y1((c) => y(c.most) - THIN / 2)(columns) ?? ''
  );
}

/** Over one column and the next pair, so that columns join. */
function reachOf(low: Float32Array, high: Float32Array, from: number): { least: number; most: number } {
  let [least, most] = [Infinity, -Infinity];
  for (let k = from; k <= Math.min(from + PER_COLUMN, low.length - 1); k++) {
    least = Math.min(least, low[k] ?? 0);
    most = Math.max(most, high[k] ?? 0);
  }
  return { least, most };
}

/** The dashes of a trace as a line's, pixels. */
function swatchOf(i: number): string | undefined {
  const [on, off] = DASHES[i % DASHES.length] as (typeof DASHES)[number];
  return off === 0 ? undefined : `${2 * on} ${2 * off}`;
}

/** What is drawn how, and the way back to the whole window. */
function Head({ pins, onWindow }: Pick<Props, 'pins' | 'onWindow'>) {
  return (
    <Box sx={{ display: 'flex', flexWrap: 'wrap', alignItems: 'center', columnGap: 2, fontSize: 13 }}>
      <Box component="span" sx={headingStyle}>
        Live
      </Box>
      {pins.map((pin, i) => (
        <Box key={pin.socket} component="span" sx={{ display: 'inline-flex', alignItems: 'center', gap: 1 }}>
          {pin.label}
          <svg width={26} height={8} aria-hidden>
            <line
              x1={0}
              x2={26}
              y1={4}
              y2={4}
              stroke={i === 0 ? ink.trace : ink.wanted}
              strokeWidth={2}
              strokeDasharray={swatchOf(i)}
            />
          </svg>
        </Box>
      ))}
      <Box sx={{ flex: 1 }} />
      <Button onClick={onWindow}>Show simulation</Button>
    </Box>
  );
}
