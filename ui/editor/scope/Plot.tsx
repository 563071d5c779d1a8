'use client';
import Box from '@mui/material/Box';
import { scaleLinear } from 'd3-scale';
import type { ScaleLinear } from 'd3-scale';
import { area } from 'd3-shape';
import { useEffect, useMemo } from 'react';
import type { KeyboardEvent } from 'react';
import { showNumber } from '@/core';
import { timeTicks } from '@/ui/parts/timeTicks';
import { useSize } from '@/ui/parts/useSize';
import { pointAt } from '@/ui/session/moment';
import { fonts, ink } from '@/ui/theme/tokens';
import { Cursor, EDGE, MomentLine } from './PlotMarks';
import type { Drawn } from './PlotMarks';
import { columnsOf, DASHES, moved, shownTrace, zoomed } from './view';
import type { ShownIn, Trace, Window } from './view';

export interface PlotProps {
  readonly traces: readonly Trace[];
  readonly shownIn: ShownIn;
  readonly sampleRate: number;
  readonly duration: number;
  /** The moment that times are counted from, seconds. */
  readonly origin: number;
  readonly view: Window;
  readonly setView: (change: (old: Window) => Window) => void;
  readonly cursors: readonly [number, number];
  readonly setCursors: (cursors: readonly [number, number]) => void;
}

/** The traces in what they are shown in; those that have no such figure, or another unit, are left out. */
function useDrawn(traces: readonly Trace[], shownIn: ShownIn, sampleRate: number): readonly Drawn[] {
  return useMemo(() => {
    const all = traces.flatMap((trace, i): Drawn[] => {
      const shown = shownTrace(trace, shownIn, sampleRate);
      return shown ? [{ trace, ...shown, dash: DASHES[i] ?? '' }] : [];
    });
    return all.filter((d) => d.unit === all[0]?.unit);
  }, [traces, shownIn, sampleRate]);
}

/** Traces over time: two cursors, the moment pointed at, zoom by wheel and keys. */
export function Plot(props: PlotProps) {
  const { traces, shownIn, sampleRate, duration, origin, view, setView, cursors, setCursors } = props;
  const drawn = useDrawn(traces, shownIn, sampleRate);
  const volts = shownIn === 'volts';
  const [box, size] = useSize<HTMLDivElement>({ width: 500, height: 200 });
  const width = Math.max(120, size.width - EDGE.left - EDGE.right);
  const height = Math.max(80, size.height - EDGE.top - EDGE.bottom);
  const low = Math.min(...(volts ? [-1] : []), ...drawn.map((d) => d.extent[0]));
  const high = Math.max(...(volts ? [1] : []), ...drawn.map((d) => d.extent[1]));
  const x = scaleLinear().domain([view.from, view.to]).range([0, width]);
  const y = scaleLinear()
    .domain(low < high ? [low, high] : Number.isFinite(low) ? [low - 1, high + 1] : [-1, 1])
    .nice(6)
    .range([height, 0]);
  useZoom(box, duration, sampleRate, width, setView);

  const onKey = (e: KeyboardEvent): void => {
    const change = changeOf(e.key, duration, sampleRate);
    if (!change) return;
    setView(change);
    e.preventDefault();
  };
  return (
    <Box ref={box} sx={{ flex: 1, minWidth: 0, minHeight: { xs: 220, md: 0 }, overflow: 'hidden' }}>
      <svg
        width={size.width}
        height={Math.max(140, size.height)}
        role="group"
        aria-label="Traces over time. Plus and minus zoom, arrows move, 0 shows all."
        tabIndex={0}
        onKeyDown={onKey}
        onPointerMove={(e) => {
          const px = e.clientX - e.currentTarget.getBoundingClientRect().left - EDGE.left;
          pointAt(px >= 0 && px <= width ? x.invert(px) : null);
        }}
        onPointerLeave={() => pointAt(null)}
        display="block"
        data-scope
      >
        <g transform={`translate(${EDGE.left},${EDGE.top})`} fontFamily={fonts.numbers} fontSize="12" fill={ink.ink}>
          <Axes x={x} y={drawn.length > 0 ? y : null} width={width} height={height} origin={origin} volts={volts} />
          <text x="-8" y="-7" textAnchor="end" fill={ink.softInk} data-scope-unit>
            {drawn[0]?.unit ?? ''}
          </text>
          {drawn.length === 0 && traces.length > 0 && (
            <text x="8" y="16" fontFamily={fonts.text}>
              Pin a destination’s input to see its unit.
            </text>
          )}
          {origin > 0 && (
            <path d={`M${x(origin)},0v${height}`} stroke={ink.ink} strokeDasharray="1 3" pointerEvents="none" />
          )}
          {drawn.map((d) => (
            <TracePath key={d.trace.socket} drawn={d} sampleRate={sampleRate} view={view} width={width} y={y} />
          ))}
          <MomentLine drawn={drawn} sampleRate={sampleRate} x={x} y={y} width={width} height={height} origin={origin} />
          {(drawn.length > 0 ? ([0, 1] as const) : []).map((which) => (
            <Cursor
              key={which}
              name={which === 0 ? 'A' : 'B'}
              at={cursors[which]}
              x={x}
              width={width}
              height={height}
              duration={duration}
              onMove={(t) => setCursors(which === 0 ? [t, cursors[1]] : [cursors[0], t])}
            />
          ))}
        </g>
      </svg>
    </Box>
  );
}

/** What a key does to the part of the window that is in view; null of any other key. */
function changeOf(key: string, duration: number, sampleRate: number): ((old: Window) => Window) | null {
  const middle = (old: Window): number => (old.from + old.to) / 2;
  const span = (old: Window): number => old.to - old.from;
  switch (key) {
    case '+':
    case '=':
      return (old) => zoomed(old, middle(old), 0.5, duration, sampleRate);
    case '-':
      return (old) => zoomed(old, middle(old), 2, duration, sampleRate);
    case 'ArrowLeft':
      return (old) => moved(old, -span(old) / 8, duration);
    case 'ArrowRight':
      return (old) => moved(old, span(old) / 8, duration);
    case '0':
      return () => ({ from: 0, to: duration });
    default:
      return null;
  }
}

interface AxesProps {
  readonly x: ScaleLinear<number, number>;
  /** Null where nothing is drawn: there is no figure to count. */
  readonly y: ScaleLinear<number, number> | null;
  readonly width: number;
  readonly height: number;
  readonly origin: number;
  readonly volts: boolean;
}

/** For one time and its gap to the next, pixels. */
const TIME_ROOM = 60;

function Axes({ x, y, width, height, origin, volts }: AxesProps) {
  const times = timeTicks(x, TIME_ROOM, origin);
  const levels = y?.ticks(6) ?? [];
  return (
    <>
      <rect width={width} height={height} fill="none" stroke={ink.line} strokeWidth="0.75" />
      {levels.map((v) => (
        <g key={v} transform={`translate(0,${y?.(v) ?? 0})`}>
          <line x1="0" x2={width} stroke={v === 0 ? ink.softInk : ink.line} strokeWidth="0.75" />
          <text x="-8" y="4" textAnchor="end">
            {showNumber(v, levels.every(Number.isInteger) ? 0 : v !== 0 && Math.abs(v) < 0.1 ? 2 : 1, volts)}
          </text>
        </g>
      ))}
      {times.map(({ t, says }) => (
        <g key={t}>
          <line x1={x(t)} x2={x(t)} y1="0" y2={height} stroke={ink.line} strokeWidth="0.75" />
          <text x={x(t)} y={height + 16} textAnchor={x(t) > width - 30 ? 'end' : 'middle'}>
            {says}
          </text>
        </g>
      ))}
    </>
  );
}

function useZoom(
  box: ReturnType<typeof useSize<HTMLDivElement>>[0],
  duration: number,
  sampleRate: number,
  width: number,
  setView: PlotProps['setView'],
): void {
  useEffect(() => {
    const element = box.current;
    const zoom = (e: WheelEvent): void => {
      e.preventDefault();
      const share = Math.min(
        1,
        Math.max(0, (e.clientX - (element?.getBoundingClientRect().left ?? 0) - EDGE.left) / width),
      );
      setView((old) => {
        const at = old.from + share * (old.to - old.from);
        if (e.shiftKey || Math.abs(e.deltaX) > Math.abs(e.deltaY)) {
          return moved(old, ((e.deltaX || e.deltaY) / width) * (old.to - old.from), duration);
        }
        return zoomed(old, at, e.deltaY < 0 ? 0.8 : 1.25, duration, sampleRate);
      });
    };
    element?.addEventListener('wheel', zoom, { passive: false });
    return () => element?.removeEventListener('wheel', zoom);
  }, [box, duration, sampleRate, width, setView]);
}

interface TraceProps {
  readonly drawn: Drawn;
  readonly sampleRate: number;
  readonly view: Window;
  readonly width: number;
  readonly y: (v: number) => number;
}

function TracePath({ drawn: { data, dash }, sampleRate, view, width, y }: TraceProps) {
  const columns = Math.max(1, Math.round(width));
  const cut = useMemo(() => columnsOf(data, sampleRate, view, columns), [data, sampleRate, view, columns]);
  const indices = Array.from({ length: columns }, (_, i) => i);
  const tall = indices.filter((i) => Math.abs(y(cut.min[i] ?? 0) - y(cut.max[i] ?? 0)) > 24).length;
  const dense = tall > 0;
  // Sound beside slow voltages: its area is only outlined, so that the others stay visible.
  const sound = tall > columns / 2;
  const shape = area<number>()
    .defined((i) => Number.isFinite(cut.min[i]))
    .x((i) => i)
    .y0((i) => y(cut.min[i] ?? 0))
    .y1((i) => y(cut.max[i] ?? 0));
  // A dashed line where it is a line; where a pixel holds whole waves, all that they cover.
  const line = dash && !dense ? shape.lineY1()(indices) : shape(indices);
  const filled = !dash || dense;
  return (
    <path
      d={line ?? ''}
      fill={filled ? ink.trace : 'none'}
      fillOpacity={sound ? 0.14 : dash ? 0.45 : 1}
      stroke={ink.trace}
      strokeWidth={sound ? 0.75 : 1.5}
      strokeDasharray={dash}
      pointerEvents="none"
    />
  );
}
