'use client';
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import Dialog from '@mui/material/Dialog';
import DialogActions from '@mui/material/DialogActions';
import DialogContent from '@mui/material/DialogContent';
import DialogTitle from '@mui/material/DialogTitle';
import { scaleLinear } from 'd3-scale';
import { curveStepAfter, line } from 'd3-shape';
import { useEffect, useRef, useState } from 'react';
import type { KeyboardEvent, PointerEvent } from 'react';
import { briefSeconds, showNumber, showSeconds, showVolts } from '@/core';
import type { GesturePoint } from '@/core';
import { counted } from '@/ui/parts/counted';
import { fieldStyle } from '@/ui/parts/fieldStyle';
import { fonts, ink } from '@/ui/theme/tokens';
import { drawnOver, movedPoint, ordered, simplified, withoutPoint } from './points';

const SIZE = { width: 720, height: 260, left: 44, right: 12, top: 12, bottom: 22 } as const;
const RANGES = ['0 to 5', '0 to 8', '0 to 10', '-5 to 5', '-10 to 10'] as const;
/** A drawn line may be off by this share of the range. */
const LOOSE = 0.004;
/** The hand is looked at this often while it is recorded, milliseconds. */
const LOOK = 16;
/** Arrow keys move a recorded hand by this share of the range at each look. */
const KEY_STEP = 0.02;

type Range = readonly [low: number, high: number];

interface Props {
  readonly name: string;
  readonly points: readonly GesturePoint[];
  readonly held: boolean;
  readonly duration: number;
  readonly onDone: (points: readonly GesturePoint[]) => void;
  readonly onClose: () => void;
}

const spanOf = (range: string): Range => {
  const [low = '', high = ''] = range.split(' to ');
  return [Number(low), Number(high)];
};

/** The smallest range that all points lie in. */
const rangeFor = (points: readonly GesturePoint[]): string =>
  RANGES.find((r) => points.every((p) => p.volts >= spanOf(r)[0] && p.volts <= spanOf(r)[1])) ?? '-10 to 10';

/** A hand on a fader: set point by point, drawn in one go, or recorded in real time. */
export function GestureDialog({ name, points: given, held, duration, onDone, onClose }: Props) {
  const [points, setPoints] = useState<readonly GesturePoint[]>(given);
  const [range, setRange] = useState(() => rangeFor(given));
  const [way, setWay] = useState<'points' | 'draw'>('draw');
  const [low, high] = spanOf(range);
  const longest = Math.max(duration, given.at(-1)?.t ?? 0);
  const tolerance = (high - low) * LOOSE;
  return (
    <Dialog open onClose={onClose} aria-labelledby="gesture-title" maxWidth="md" fullWidth>
      <DialogTitle id="gesture-title">{`${name}: a hand over ${briefSeconds(longest)}`}</DialogTitle>
      <DialogContent>
        <Box sx={{ display: 'flex', gap: 1.5, alignItems: 'center', flexWrap: 'wrap', mb: 1 }}>
          <Box role="group" aria-label="How" sx={{ display: 'flex', gap: 1 }}>
            <Button
              aria-pressed={way === 'draw'}
              color={way === 'draw' ? 'primary' : 'inherit'}
              onClick={() => setWay('draw')}
            >
              Draw
            </Button>
            <Button
              aria-pressed={way === 'points'}
              color={way === 'points' ? 'primary' : 'inherit'}
              onClick={() => setWay('points')}
            >
              Points
            </Button>
          </Box>
          <Box component="label">
            Volts{' '}
            <Box component="select" value={range} onChange={(e) => setRange(e.target.value)} sx={fieldStyle}>
              {RANGES.map((r) => (
                <option key={r} value={r}>
                  {r.replaceAll('-', '\u2212')}
                </option>
              ))}
            </Box>
          </Box>
          <Box sx={{ color: ink.softInk }} role="status">
            {counted(points.length, 'point')}
          </Box>
        </Box>
        <Timeline
          points={points}
          setPoints={setPoints}
          range={[low, high]}
          longest={longest}
          way={way}
          held={held}
          tolerance={tolerance}
        />
        <Recorder
          range={[low, high]}
          longest={longest}
          onRecorded={(taken) => setPoints(drawnOver(points, simplified(ordered(taken), tolerance)))}
        />
        <Box sx={{ color: ink.softInk, fontSize: 13, mt: 1 }}>
          Draw: press and move over the time line. Points: click to add one, drag it, or move it with the arrows; Delete
          takes it away.
        </Box>
      </DialogContent>
      <DialogActions>
        <Button onClick={() => setPoints([{ t: 0, volts: Math.max(low, Math.min(high, 0)) }])}>Clear</Button>
        <Button onClick={onClose}>Cancel</Button>
        <Button color="primary" onClick={() => onDone(points)}>
          Use this gesture
        </Button>
      </DialogActions>
    </Dialog>
  );
}

interface TimelineProps {
  readonly points: readonly GesturePoint[];
  readonly setPoints: (points: readonly GesturePoint[]) => void;
  readonly range: Range;
  readonly longest: number;
  readonly way: 'points' | 'draw';
  readonly held: boolean;
  readonly tolerance: number;
}

function Timeline({ points, setPoints, range, longest, way, held, tolerance }: TimelineProps) {
  const [drawn, setDrawn] = useState<readonly GesturePoint[] | null>(null);
  const grabbed = useRef<number | null>(null);
  const x = scaleLinear()
    .domain([0, longest])
    .range([SIZE.left, SIZE.width - SIZE.right])
    .clamp(true);
  const y = scaleLinear()
    .domain(range)
    .range([SIZE.height - SIZE.bottom, SIZE.top])
    .clamp(true);
  const under = (e: PointerEvent<SVGElement>): GesturePoint => {
    const svg = e.currentTarget.ownerSVGElement ?? (e.currentTarget as unknown as SVGSVGElement);
    const box = svg.getBoundingClientRect();
    const scale = SIZE.width / box.width;
    return { t: x.invert((e.clientX - box.left) * scale), volts: y.invert((e.clientY - box.top) * scale) };
  };
  const path = line<GesturePoint>()
    .x((p) => x(p.t))
    .y((p) => y(p.volts));
  if (held) path.curve(curveStepAfter);
  const last = points.at(-1);
  const shown = last ? [...points, { t: longest, volts: last.volts }] : points;
  const key = (e: KeyboardEvent, i: number): void => {
    const p = points[i] as GesturePoint;
    const step = e.shiftKey ? 0.2 : 1;
    const moves: Record<string, GesturePoint> = {
      ArrowLeft: { ...p, t: p.t - (longest / 100) * step },
      ArrowRight: { ...p, t: Math.min(longest, p.t + (longest / 100) * step) },
      ArrowUp: { ...p, volts: Math.min(range[1], p.volts + 0.1 * step) },
      ArrowDown: { ...p, volts: Math.max(range[0], p.volts - 0.1 * step) },
    };
    const to = moves[e.key];
    if (to) setPoints(movedPoint(points, i, to));
    else if (e.key === 'Delete' || e.key === 'Backspace') setPoints(withoutPoint(points, i));
    else return;
    e.preventDefault();
  };
  return (
    <Box
      component="svg"
      viewBox={`0 0 ${SIZE.width} ${SIZE.height}`}
      role="group"
      aria-label="The gesture over time"
      data-gesture
      sx={{
        width: '100%',
        touchAction: 'none',
        border: `1px solid ${ink.line}`,
        background: ink.paper,
        cursor: 'crosshair',
        display: 'block',
      }}
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
      <g fontFamily={fonts.numbers} fontSize="12" fill={ink.ink}>
        {y.ticks(6).map((v) => (
          <g key={v}>
            <line
              x1={SIZE.left}
              x2={SIZE.width - SIZE.right}
              y1={y(v)}
              y2={y(v)}
              stroke={v === 0 ? ink.softInk : ink.line}
            />
            <text x={SIZE.left - 8} y={y(v) + 4} textAnchor="end">
              {showNumber(v, 0, true)}
            </text>
          </g>
        ))}
        {x.ticks(8).map((t) => (
          <text key={t} x={x(t)} y={SIZE.height - 6} textAnchor="middle">
            {briefSeconds(t)}
          </text>
        ))}
      </g>
      <path d={path([...shown]) ?? ''} fill="none" stroke={ink.trace} strokeWidth="1.6" />
      {drawn && (
        <path
          d={
            line<GesturePoint>()
              .x((p) => x(p.t))
              .y((p) => y(p.volts))([...drawn]) ?? ''
          }
          fill="none"
          stroke={ink.wanted}
          strokeWidth="2"
        />
      )}
      {points.length <= 200 &&
        points.map((p, i) => (
          <circle
            key={i}
            cx={x(p.t)}
            cy={y(p.volts)}
            r="5"
            fill={ink.raised}
            stroke={ink.trace}
            strokeWidth="1.5"
            role="slider"
            tabIndex={0}
            aria-label={`Point ${i + 1}`}
            aria-valuemin={range[0]}
            aria-valuemax={range[1]}
            aria-valuenow={p.volts}
            aria-valuetext={`${showVolts(p.volts)} at ${showSeconds(p.t)}`}
            onKeyDown={(e) => key(e, i)}
            onPointerDown={() => {
              if (way === 'points') grabbed.current = i;
            }}
          />
        ))}
    </Box>
  );
}

/** Records a hand in real time: the height of the pointer or the finger on the pad, or the up and down arrows. */
function Recorder({
  range,
  longest,
  onRecorded,
}: {
  range: Range;
  longest: number;
  onRecorded: (taken: readonly GesturePoint[]) => void;
}) {
  const [low, high] = range;
  const [seconds, setSeconds] = useState<number | null>(null);
  const share = useRef(0.5);
  const [shown, setShown] = useState(0.5);
  const way = useRef(0);
  const taken = useRef<GesturePoint[]>([]);
  const finish = useRef(onRecorded);
  useEffect(() => {
    finish.current = onRecorded;
  });
  const running = seconds !== null;
  const stop = (): void => {
    setSeconds(null);
    if (taken.current.length > 0) finish.current(taken.current);
    taken.current = [];
  };
  useEffect(() => {
    if (!running) return;
    const begun = performance.now();
    const timer = setInterval(() => {
      const t = (performance.now() - begun) / 1000;
      share.current = Math.min(1, Math.max(0, share.current + way.current * KEY_STEP));
      setShown(share.current);
      taken.current.push({ t: Math.min(t, longest), volts: low + share.current * (high - low) });
      setSeconds(t);
      if (t < longest) return;
      clearInterval(timer);
      setSeconds(null);
      finish.current(taken.current);
      taken.current = [];
    }, LOOK);
    return () => clearInterval(timer);
  }, [running, low, high, longest]);
  const follow = (e: PointerEvent<HTMLElement>): void => {
    const box = e.currentTarget.getBoundingClientRect();
    share.current = Math.min(1, Math.max(0, 1 - (e.clientY - box.top) / box.height));
    setShown(share.current);
  };
  return (
    <Box sx={{ display: 'flex', gap: 2, alignItems: 'center', mt: 1 }}>
      <Box
        role="slider"
        tabIndex={0}
        aria-label="The hand that is recorded"
        aria-valuemin={low}
        aria-valuemax={high}
        aria-valuenow={low + shown * (high - low)}
        aria-valuetext={showVolts(low + shown * (high - low))}
        data-hand
        onPointerMove={follow}
        onPointerDown={follow}
        onKeyDown={(e) => {
          const turn = { ArrowUp: 1, ArrowDown: -1 }[e.key];
          if (turn === undefined) return;
          e.preventDefault();
          way.current = turn;
          if (!running) {
            share.current = Math.min(1, Math.max(0, share.current + turn * KEY_STEP));
            setShown(share.current);
          }
        }}
        onKeyUp={() => (way.current = 0)}
        sx={{
          width: 120,
          height: 96,
          border: `1px solid ${ink.line}`,
          background: ink.paper,
          position: 'relative',
          touchAction: 'none',
          cursor: 'ns-resize',
        }}
      >
        <Box
          sx={{ position: 'absolute', left: 0, right: 0, bottom: `${shown * 100}%`, height: 2, background: ink.wanted }}
        />
      </Box>
      <Box>
        <Button
          color={running ? 'primary' : 'inherit'}
          onClick={() => {
            if (running) stop();
            else setSeconds(0);
          }}
        >
          {running ? 'Stop' : 'Record from now'}
        </Button>
        <Box role="status" sx={{ fontFamily: fonts.numbers, mt: 0.5 }}>
          {running
            ? `${showNumber(seconds, 1)}\u2009s of ${briefSeconds(longest)}`
            : 'Move over the pad, by pointer, finger or ↑ ↓'}
        </Box>
      </Box>
    </Box>
  );
}
