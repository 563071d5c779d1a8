'use client';
import { useRef } from 'react';
import { useStore } from 'zustand';
import { showNumber, showSeconds } from '@/core';
import { moment } from '@/ui/session/moment';
import { ink } from '@/ui/theme/tokens';
import { valueAtTime } from './view';
import type { Shown, Trace } from './view';

/** Around the plot, pixels. */
export const EDGE = { left: 52, right: 12, top: 18, bottom: 22 } as const;

/** A trace as the plot shows it. */
export interface Drawn extends Shown {
  readonly trace: Trace;
  readonly dash: string;
}

/** The height of a figure at the moment pointed at, and of the time at the foot, pixels. */
const FIGURE = 15;

/** Base lines for the figures of several traces: each near its own height, none over another. */
export function spread(heights: readonly number[], height: number): number[] {
  let foot = height - FIGURE - 6;
  const lines = heights.map((h) => Math.min(foot, Math.max(10, h - 5)));
  const order = [...lines.keys()].sort((a, b) => (lines[a] as number) - (lines[b] as number));
  // Down where they crowd, then up again from the foot.
  order.forEach((i, k) => {
    const above = order[k - 1];
    if (above !== undefined) lines[i] = Math.max(lines[i] as number, (lines[above] as number) + FIGURE);
  });
  for (const i of order.toReversed()) {
    lines[i] = Math.min(lines[i] as number, foot);
    foot = (lines[i] as number) - FIGURE;
  }
  return lines;
}

/** The moment pointed at, here or in the strip: its time, and each trace's value. */
export function MomentLine({
  drawn,
  sampleRate,
  x,
  y,
  width,
  height,
  origin,
}: {
  drawn: readonly Drawn[];
  sampleRate: number;
  x: (t: number) => number;
  y: (v: number) => number;
  width: number;
  height: number;
  origin: number;
}) {
  const at = useStore(moment, (s) => s.at);
  if (at === null) return null;
  const px = x(at);
  if (px < 0 || px > width) return null;
  const right = px > width / 2;
  const anchor = { textAnchor: right ? ('end' as const) : ('start' as const), x: px + (right ? -6 : 6) };
  const values = drawn.map((d) => valueAtTime(d.data, sampleRate, at));
  const lines = spread(values.map(y), height);
  const halo = { stroke: ink.paper, strokeWidth: 4, paintOrder: 'stroke' as const };
  return (
    <g pointerEvents="none" data-scope-moment={at.toFixed(3)}>
      <line x1={px} x2={px} y1="0" y2={height} stroke={ink.wanted} strokeWidth="1" />
      <text {...anchor} {...halo} y={height - 4} fill={ink.softInk}>
        {showSeconds(at - origin)}
      </text>
      {values.map((value, i) => (
        <g key={drawn[i]?.trace.socket}>
          <circle cx={px} cy={y(value)} r="3" fill={ink.wanted} />
          <text {...anchor} {...halo} y={lines[i]} fill={ink.ink} data-moment-figure>
            {showNumber(value, 2, drawn[i]?.unit === 'V')}
          </text>
        </g>
      ))}
    </g>
  );
}

interface CursorProps {
  readonly name: string;
  readonly at: number;
  readonly x: { (t: number): number; invert(px: number): number };
  readonly width: number;
  readonly height: number;
  readonly duration: number;
  readonly onMove: (t: number) => void;
}

/** One of the two cursors: dragged, or moved by the arrows. */
export function Cursor({ name, at, x, width, height, duration, onMove }: CursorProps) {
  const held = useRef(false);
  const px = x(at);
  const move = (t: number): void => onMove(Math.min(duration, Math.max(0, t)));
  const step = (x.invert(1) - x.invert(0)) * 2;
  if (px < -0.5 || px > width + 0.5) return null;
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
