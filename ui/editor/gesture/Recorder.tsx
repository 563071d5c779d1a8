'use client';
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import { useEffect, useRef, useState } from 'react';
import type { PointerEvent } from 'react';
import { briefSeconds, showNumber } from '@/core';
import type { GesturePoint, Range } from '@/core';
import { fonts, ink } from '@/ui/theme/tokens';

/** The hand is looked at this often while it is recorded, milliseconds. */
const LOOK = 16;
/** Arrow keys move a recorded hand by this share of the range at each look. */
const KEY_STEP = 0.02;

interface Props {
  readonly range: Range;
  readonly longest: number;
  readonly show: (value: number) => string;
  /** The pad is high in octaves. */
  readonly octaves: boolean;
  readonly onRecorded: (taken: readonly GesturePoint[]) => void;
}

/** The value at a height of the pad, 0 to 1. */
const valueOf = ([low, high]: Range, share: number, octaves: boolean): number =>
  octaves ? low * (high / low) ** share : low + share * (high - low);

/** A hand between 0 and 1 that is looked at in real time, from when it is started until it is stopped or time is up. */
function useHand({ range, longest, octaves, onRecorded }: Omit<Props, 'show'>) {
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
      taken.current.push({ t: Math.min(t, longest), volts: valueOf([low, high], share.current, octaves) });
      setSeconds(t);
      if (t < longest) return;
      clearInterval(timer);
      setSeconds(null);
      finish.current(taken.current);
      taken.current = [];
    }, LOOK);
    return () => clearInterval(timer);
  }, [running, low, high, longest, octaves]);
  const set = (to: number): void => {
    share.current = Math.min(1, Math.max(0, to));
    setShown(share.current);
  };
  const turn = (to: number): void => {
    way.current = to;
    if (!running) set(share.current + to * KEY_STEP);
  };
  return { seconds, running, shown, set, turn, stop, start: () => setSeconds(0) };
}

/** Records a hand in real time: the height of the pointer or the finger on the pad, or the up and down arrows. */
export function Recorder(props: Props) {
  const [low, high] = props.range;
  const { seconds, running, shown, set, turn, stop, start } = useHand(props);
  const now = valueOf(props.range, shown, props.octaves);
  const follow = (e: PointerEvent<HTMLElement>): void => {
    const box = e.currentTarget.getBoundingClientRect();
    set(1 - (e.clientY - box.top) / box.height);
  };
  return (
    <Box sx={{ display: 'flex', gap: 2, alignItems: 'center', mt: 1 }}>
      <Box
        role="slider"
        tabIndex={0}
        aria-label="Recorded position"
        aria-valuemin={low}
        aria-valuemax={high}
        aria-valuenow={now}
        aria-valuetext={props.show(now)}
        data-hand
        onPointerMove={follow}
        onPointerDown={follow}
        onKeyDown={(e) => {
          const way = { ArrowUp: 1, ArrowDown: -1 }[e.key];
          if (way === undefined) return;
          e.preventDefault();
          turn(way);
        }}
        onKeyUp={() => turn(0)}
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
        <Button color={running ? 'primary' : 'inherit'} onClick={running ? stop : start}>
          {running ? 'Stop' : 'Record'}
        </Button>
        <Box role="status" sx={{ fontFamily: seconds === null ? undefined : fonts.numbers, mt: 0.5 }}>
          {seconds !== null
            ? `${showNumber(seconds, 1)}\u00a0s of ${briefSeconds(props.longest)}`
            : 'Drag on the pad, or press ↑ ↓'}
        </Box>
      </Box>
    </Box>
  );
}
