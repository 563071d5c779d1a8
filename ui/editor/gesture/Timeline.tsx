'use client';
import Box from '@mui/material/Box';
import { scaleLinear, scaleLog } from 'd3-scale';
import type { ScaleContinuousNumeric, ScaleLinear } from 'd3-scale';
import { curveStepAfter, line } from 'd3-shape';
import { useRef, useState } from 'react';
import type { KeyboardEvent, PointerEvent, RefObject, SVGProps } from 'react';
import { showNumber, showSeconds } from '@/core';
import type { GesturePoint, Range } from '@/core';
import { timeTicks } from '@/ui/parts/timeTicks';
import { useSize } from '@/ui/parts/useSize';
import { fonts, ink } from '@/ui/theme/tokens';
import { drawnOver, movedPoint, ordered, simplified, withoutPoint, withPointAfter } from './points';

const SIZE = { height: 260, left: 72, right: 12, top: 12, bottom: 22 } as const;
/** The room that a time takes, pixels. */
const TICK = 64;

interface TimelineProps {
  readonly points: readonly GesturePoint[];
  readonly setPoints: (points: readonly GesturePoint[]) => void;
  readonly range: Range;
  readonly longest: number;
  readonly way: 'points' | 'draw';
  readonly held: boolean;
  readonly tolerance: number;
  readonly show: (value: number) => string;
  /** The scale counts octaves. */
  readonly octaves: boolean;
}

/** The gesture over time: drawn in one go, or point by point, by pointer and by keys. */
export function Timeline({ points, setPoints, range, longest, way, held, tolerance, show, octaves }: TimelineProps) {
  const [drawn, setDrawn] = useState<readonly GesturePoint[] | null>(null);
  const grabbed = useRef<number | null>(null);
  const [box, { width }] = useSize<HTMLDivElement>({ width: 720, height: SIZE.height });
  const x = scaleLinear()
    .domain([0, longest])
    .range([SIZE.left, width - SIZE.right])
    .clamp(true);
  const y = (
    octaves
      ? scaleLog(range, [SIZE.height - SIZE.bottom, SIZE.top])
      : scaleLinear(range, [SIZE.height - SIZE.bottom, SIZE.top])
  ).clamp(true);
  const under = (e: PointerEvent<SVGElement>): GesturePoint => {
    const svg = e.currentTarget.ownerSVGElement ?? (e.currentTarget as unknown as SVGSVGElement);
    const { left, top } = svg.getBoundingClientRect();
    return { t: x.invert(e.clientX - left), volts: y.invert(e.clientY - top) };
  };
  const { straight, path } = lines(x, y, held);
  const last = points.at(-1);
  const whole = last ? [...points, { t: longest, volts: last.volts }] : points;
  const shown = octaves && !held ? between(whole) : whole;
  const key = (e: KeyboardEvent, i: number): void => {
    const to = movedByKey(points[i] as GesturePoint, e, range, longest, octaves);
    if (to) setPoints(movedPoint(points, i, to));
    else if (e.key === 'Enter') setPoints(withPointAfter(points, i, longest));
    else if (e.key === 'Delete' || e.key === 'Backspace') setPoints(withoutPoint(points, i));
    else return;
    e.preventDefault();
  };
  const handle = (p: GesturePoint, i: number) => (
    <Handle
      key={i}
      point={p}
      index={i}
      range={range}
      show={show}
      x={x(p.t)}
      y={y(p.volts)}
      onKey={(e) => key(e, i)}
      onGrab={() => way === 'points' && (grabbed.current = i)}
    />
  );
  return (
    <Frame
      box={box}
      width={width}
      onPointerDown={(e) => {
        e.currentTarget.setPointerCapture(e.pointerId);
        if (way === 'draw') setDrawn([under(e)]);
        else if (grabbed.current === null) setPoints(ordered([...points, under(e)]));
      }}
      onPointerMove={(e) => {
        if (drawn) setDrawn([...drawn, under(e)]);
        else if (grabbed.current !== null) setPoints(movedPoint(points, grabbed.current, under(e)));
      }}
      onPointerUp={() => {
        if (drawn && drawn.length > 1) setPoints(drawnOver(points, simplified(ordered(drawn), tolerance)));
        setDrawn(null);
        grabbed.current = null;
      }}
    >
      <Axes x={x} y={y} width={width} show={octaves ? show : undefined} />
      <path d={path([...shown]) ?? ''} fill="none" stroke={ink.trace} strokeWidth="1.6" />
      {drawn && <path d={straight([...drawn]) ?? ''} fill="none" stroke={ink.wanted} strokeWidth="2" />}
      {points.length <= 200 && points.map(handle)}
    </Frame>
  );
}

interface FrameProps extends SVGProps<SVGSVGElement> {
  readonly box: RefObject<HTMLDivElement | null>;
  readonly width: number;
}

/** As wide as there is room, so that its figures keep their size. */
function Frame({ box, width, children, ...hands }: FrameProps) {
  return (
    <Box ref={box} sx={{ border: `1px solid ${ink.line}`, background: ink.paper }}>
      <svg
        {...hands}
        width={width}
        height={SIZE.height}
        role="group"
        aria-label="Gesture over time"
        data-gesture
        style={{ touchAction: 'none', cursor: 'crosshair', display: 'block' }}
      >
        {children}
      </svg>
    </Box>
  );
}

/** Points along straight lines between values, for a scale on which those are curves. */
function between(points: readonly GesturePoint[]): readonly GesturePoint[] {
  const STEPS = 16;
  return points.flatMap((p, i) => {
    const next = points[i + 1];
    if (!next) return [p];
    return Array.from({ length: STEPS }, (_, k) => ({
      t: p.t + ((next.t - p.t) * k) / STEPS,
      volts: p.volts + ((next.volts - p.volts) * k) / STEPS,
    }));
  });
}

/** The line of the gesture itself, held or not, and a straight one for what is being drawn. */
function lines(x: ScaleLinear<number, number>, y: ScaleContinuousNumeric<number, number>, held: boolean) {
  const straight = () =>
    line<GesturePoint>()
      .x((p) => x(p.t))
      .y((p) => y(p.volts));
  return { straight: straight(), path: held ? straight().curve(curveStepAfter) : straight() };
}

/** Where the arrows move a point to; null of any other key. */
function movedByKey(
  p: GesturePoint,
  e: KeyboardEvent,
  [low, high]: Range,
  longest: number,
  octaves: boolean,
): GesturePoint | null {
  const step = e.shiftKey ? 0.2 : 1;
  const up = (share: number): number => (octaves ? p.volts * (high / low) ** share : p.volts + (high - low) * share);
  const moves: Record<string, GesturePoint> = {
    ArrowLeft: { ...p, t: p.t - (longest / 100) * step },
    ArrowRight: { ...p, t: Math.min(longest, p.t + (longest / 100) * step) },
    ArrowUp: { ...p, volts: Math.min(high, up(step / 100)) },
    ArrowDown: { ...p, volts: Math.max(low, up(-step / 100)) },
  };
  return moves[e.key] ?? null;
}

interface AxesProps {
  readonly x: ScaleLinear<number, number>;
  readonly y: ScaleContinuousNumeric<number, number>;
  readonly width: number;
  /** Figures in a unit of their own; left out: volts. */
  readonly show: ((value: number) => string) | undefined;
}

/** At least so far apart, so that no figure lies on another, pixels. */
const APART = 22;

/** The ticks that have room. */
function roomy(y: ScaleContinuousNumeric<number, number>, count: number): number[] {
  const kept: number[] = [];
  for (const v of y.ticks(count)) if (kept.every((k) => Math.abs(y(k) - y(v)) >= APART)) kept.push(v);
  return kept;
}

function Axes({ x, y, width, show }: AxesProps) {
  const [low = 0, high = 1] = y.domain();
  const digits = high - low < 6 ? 1 : 0;
  return (
    <g fontFamily={fonts.numbers} fontSize="12" fill={ink.ink}>
      {roomy(y, 6).map((v) => (
        <g key={v}>
          <line x1={SIZE.left} x2={width - SIZE.right} y1={y(v)} y2={y(v)} stroke={v === 0 ? ink.softInk : ink.line} />
          <text x={SIZE.left - 8} y={y(v) + 4} textAnchor="end">
            {show ? show(v) : showNumber(v, digits, true)}
          </text>
        </g>
      ))}
      {timeTicks(x, TICK).map(({ t, says }) => (
        <text key={t} x={x(t)} y={SIZE.height - 6} textAnchor={x(t) > width - TICK / 2 ? 'end' : 'middle'}>
          {says}
        </text>
      ))}
    </g>
  );
}

interface HandleProps {
  readonly point: GesturePoint;
  readonly index: number;
  readonly range: Range;
  readonly show: (value: number) => string;
  readonly x: number;
  readonly y: number;
  readonly onKey: (e: KeyboardEvent) => void;
  readonly onGrab: () => void;
}

/** A point that can be taken hold of. */
function Handle({ point, index, range, show, x, y, onKey, onGrab }: HandleProps) {
  return (
    <circle
      cx={x}
      cy={y}
      r="5"
      fill={ink.raised}
      stroke={ink.trace}
      strokeWidth="1.5"
      role="slider"
      tabIndex={0}
      aria-label={`Point ${index + 1}`}
      aria-valuemin={range[0]}
      aria-valuemax={range[1]}
      aria-valuenow={point.volts}
      aria-valuetext={`${show(point.volts)} at ${showSeconds(point.t)}`}
      onKeyDown={onKey}
      onPointerDown={onGrab}
    />
  );
}
