'use client';
import Box from '@mui/material/Box';
import { scaleLinear } from 'd3-scale';
import { area } from 'd3-shape';
import { memo, useEffect, useMemo, useRef, useState } from 'react';
import type { KeyboardEvent } from 'react';
import { briefSeconds, showNumber, showSeconds } from '@/core';
import { useSize } from '@/ui/parts/useSize';
import { fonts, ink } from '@/ui/theme/tokens';
import type { FullAnswer } from '@/workers/protocol';
import { MeasuresTable } from './MeasuresTable';
import { columnsOf, DASHES, moved, zoomed } from './view';
import type { Trace, Window } from './view';

const EDGE = { left: 44, right: 12, top: 18, bottom: 22 } as const;

interface Props {
  readonly traces: readonly Trace[];
  readonly full: FullAnswer | null;
  readonly duration: number;
}

/** The pinned probes over the whole window: two cursors, measures, zoom by wheel and keys. */
export const Scope = memo(function Scope({ traces, full, duration }: Props) {
  const [view, setView] = useState<Window>({ from: 0, to: duration });
  const [cursors, setCursors] = useState<readonly [number, number]>([0.125 * duration, 0.625 * duration]);
  const shown = view.to > duration ? { from: 0, to: duration } : view;
  return (
    <Box
      component="section"
      aria-label="Scope"
      sx={{ display: 'flex', flexWrap: { xs: 'wrap', md: 'nowrap' }, gap: 1, px: 1.75, pt: 1, minHeight: 250 }}
    >
      <Box sx={{ flex: 1, minWidth: 0, display: 'flex', flexDirection: 'column' }}>
        <Box sx={{ display: 'flex', gap: 2, flexWrap: 'wrap', alignItems: 'center', fontSize: 13, minHeight: 20 }}>
          <Box component="h2" sx={{ fontSize: 12, fontWeight: 700, color: ink.softInk, m: 0 }}>
            Scope
          </Box>
          {traces.map((t, i) => (
            <Box key={t.socket} component="span" sx={{ display: 'inline-flex', gap: 0.75, alignItems: 'center' }}>
              {t.label}
              <svg width="28" height="6" aria-hidden="true">
                <line x1="0" x2="28" y1="3" y2="3" stroke={ink.trace} strokeWidth="2" strokeDasharray={DASHES[i]} />
              </svg>
            </Box>
          ))}
          {traces.length === 0 && <span>Pin a socket of a stage to see its trace here.</span>}
        </Box>
        <Plot
          traces={traces}
          sampleRate={full?.sampleRate ?? 8000}
          duration={duration}
          view={shown}
          setView={setView}
          cursors={cursors}
          setCursors={setCursors}
        />
      </Box>
      {traces.length > 0 && <MeasuresTable traces={traces} sampleRate={full?.sampleRate ?? 8000} cursors={cursors} />}
    </Box>
  );
});

interface PlotProps {
  readonly traces: readonly Trace[];
  readonly sampleRate: number;
  readonly duration: number;
  readonly view: Window;
  readonly setView: (change: (old: Window) => Window) => void;
  readonly cursors: readonly [number, number];
  readonly setCursors: (cursors: readonly [number, number]) => void;
}

function Plot({ traces, sampleRate, duration, view, setView, cursors, setCursors }: PlotProps) {
  const [box, size] = useSize<HTMLDivElement>({ width: 500, height: 200 });
  const width = Math.max(120, size.width - EDGE.left - EDGE.right);
  const height = Math.max(80, size.height - EDGE.top - EDGE.bottom);
  const low = Math.min(-1, ...traces.map((t) => t.probe.measures.min));
  const high = Math.max(1, ...traces.map((t) => t.probe.measures.max));
  const x = scaleLinear().domain([view.from, view.to]).range([0, width]);
  const y = scaleLinear().domain([low, high]).nice(6).range([height, 0]);
  useZoom(box, duration, sampleRate, width, setView);

  const onKey = (e: KeyboardEvent): void => {
    const span = view.to - view.from;
    if (e.key === '+' || e.key === '=')
      setView((old) => zoomed(old, (old.from + old.to) / 2, 0.5, duration, sampleRate));
    else if (e.key === '-') setView((old) => zoomed(old, (old.from + old.to) / 2, 2, duration, sampleRate));
    else if (e.key === 'ArrowLeft') setView((old) => moved(old, -span / 8, duration));
    else if (e.key === 'ArrowRight') setView((old) => moved(old, span / 8, duration));
    else if (e.key === '0') setView(() => ({ from: 0, to: duration }));
    else return;
    e.preventDefault();
  };
  return (
    <Box ref={box} sx={{ flex: 1, minHeight: 190, overflow: 'hidden' }}>
      <svg
        width={size.width}
        height={Math.max(190, size.height)}
        role="group"
        aria-label="Traces over time. Plus and minus zoom, arrows move, 0 shows all."
        tabIndex={0}
        onKeyDown={onKey}
        display="block"
        data-scope
      >
        <g transform={`translate(${EDGE.left},${EDGE.top})`} fontFamily={fonts.numbers} fontSize="12" fill={ink.ink}>
          {y.ticks(6).map((v) => (
            <g key={v}>
              <line
                x1="0"
                x2={width}
                y1={y(v)}
                y2={y(v)}
                stroke={v === 0 ? ink.softInk : ink.line}
                strokeWidth="0.75"
              />
              <text x="-8" y={y(v) + 4} textAnchor="end">
                {showNumber(v, y.ticks(6).every(Number.isInteger) ? 0 : 1, true)}
              </text>
            </g>
          ))}
          {x.ticks(5).map((t) => (
            <g key={t}>
              <line x1={x(t)} x2={x(t)} y1="0" y2={height} stroke={ink.line} strokeWidth="0.75" />
              <text x={x(t)} y={height + 16} textAnchor={x(t) > width - 30 ? 'end' : 'middle'}>
                {briefSeconds(t)}
              </text>
            </g>
          ))}
          {traces.map((t, i) => (
            <TracePath
              key={t.socket}
              trace={t}
              sampleRate={sampleRate}
              view={view}
              width={width}
              y={y}
              dash={DASHES[i] ?? ''}
            />
          ))}
          {([0, 1] as const).map((which) => (
            <Cursor
              key={which}
              name={which === 0 ? 'A' : 'B'}
              at={cursors[which]}
              x={x}
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
  readonly trace: Trace;
  readonly sampleRate: number;
  readonly view: Window;
  readonly width: number;
  readonly y: (v: number) => number;
  readonly dash: string;
}

function TracePath({ trace, sampleRate, view, width, y, dash }: TraceProps) {
  const columns = Math.max(1, Math.round(width));
  const cut = useMemo(
    () => columnsOf(trace.probe.trace, sampleRate, view, columns),
    [trace, sampleRate, view, columns],
  );
  const indices = Array.from({ length: columns }, (_, i) => i);
  const dense = indices.some((i) => Math.abs(y(cut.min[i] ?? 0) - y(cut.max[i] ?? 0)) > 24);
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
      fillOpacity={dash ? 0.45 : 1}
      stroke={ink.trace}
      strokeWidth="1.5"
      strokeDasharray={dash}
      pointerEvents="none"
    />
  );
}

interface CursorProps {
  readonly name: string;
  readonly at: number;
  readonly x: { (t: number): number; invert(px: number): number };
  readonly height: number;
  readonly duration: number;
  readonly onMove: (t: number) => void;
}

function Cursor({ name, at, x, height, duration, onMove }: CursorProps) {
  const held = useRef(false);
  const px = x(at);
  const move = (t: number): void => onMove(Math.min(duration, Math.max(0, t)));
  const step = (x.invert(1) - x.invert(0)) * 2;
  if (px < -0.5 || px > x(x.invert(1e9)) + 1e9) return null;
  return (
    <g
      role="slider"
      tabIndex={0}
      aria-label={`Cursor ${name}`}
      aria-valuemin={0}
      aria-valuemax={duration}
      aria-valuenow={at}
      aria-valuetext={showSeconds(at)}
      cursor="ew-resize"
      onPointerDown={(e) => {
        held.current = true;
        e.currentTarget.setPointerCapture(e.pointerId);
      }}
      onPointerMove={(e) => {
        if (!held.current) return;
        const left = e.currentTarget.ownerSVGElement?.getBoundingClientRect().left ?? 0;
        move(x.invert(e.clientX - left - EDGE.left));
      }}
      onPointerUp={() => (held.current = false)}
      onKeyDown={(e) => {
        const way = { ArrowLeft: -1, ArrowRight: 1 }[e.key];
        if (way === undefined) return;
        e.preventDefault();
        e.stopPropagation();
        move(at + way * step * (e.shiftKey ? 0.5 : 4));
      }}
    >
      <line x1={px} x2={px} y1="0" y2={height} stroke={ink.wanted} strokeWidth="1.5" />
      <rect x={px - 8} y="-16" width="16" height="16" fill={ink.wanted} rx="2" />
      <text x={px} y="-4" textAnchor="middle" fill={ink.raised} fontSize="11">
        {name}
      </text>
    </g>
  );
}
