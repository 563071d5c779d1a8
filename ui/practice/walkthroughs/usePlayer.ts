import { useEffect, useMemo, useReducer, useRef, useState } from 'react';
import { useStore } from 'zustand';
import { editsBetween, isSame } from '@/core';
import type { Patch } from '@/core';
import { glided, isGliding, patchesOf } from '@/core/practice';
import type { Walkthrough, WalkthroughStep } from '@/core/practice';
import { createDesk } from '@/ui/session/desk';
import type { DeskStore } from '@/ui/session/desk';
import { nextState, readingTime, startOf } from './player';
import type { PlayerEvent, PlayerState } from './player';

/** Movements of a walkthrough are one change in the history. */
const KEY = 'walkthrough';

const prefersStill = (): boolean => matchMedia('(prefers-reduced-motion: reduce)').matches;

function put(desk: DeskStore, patch: Patch): void {
  const now = desk.getState().patch;
  if (now !== patch) desk.getState().edit('Walkthrough', editsBetween(now, patch), KEY, true);
}

export interface Player {
  readonly desk: DeskStore;
  readonly state: PlayerState;
  readonly step: WalkthroughStep;
  /** The destination whose path is shown. */
  readonly end: string | null;
  /** The patch before the step, and what the step leads to. */
  readonly before: Patch;
  readonly target: Patch;
  /** Somebody turned something since the step was done. */
  readonly touched: boolean;
  readonly send: (event: PlayerEvent) => void;
  /** Everything as the step leaves it. */
  readonly comeBack: () => void;
}

/** Plays a walkthrough on a patch that is nobody’s: it is never saved. */
export function usePlayer(walkthrough: Walkthrough): Player {
  const { steps } = walkthrough;
  const patches = useMemo(() => patchesOf(walkthrough), [walkthrough]);
  const [desk] = useState(() => {
    const { patch } = walkthrough;
    return createDesk({ id: KEY, patch, saved: patch, revision: 0, savedAt: '' });
  });
  const [state, send] = useReducer(
    (now: PlayerState, event: PlayerEvent) => nextState(steps, now, event),
    startOf(steps),
  );
  const { at, phase, paused, runs } = state;
  const step = steps[at] as WalkthroughStep;
  const [before, target] = [patches[at] as Patch, patches[at + 1] as Patch];
  const share = useRef({ of: -1, value: 0 });

  useEffect(() => {
    if (phase === 'resting') put(desk, target);
    if (phase === 'asking') put(desk, before);
    if (phase !== 'moving' || paused) return;
    if (share.current.of !== at) share.current = { of: at, value: 0 };
    if (prefersStill() || !isGliding(before, step)) {
      put(desk, target);
      send({ is: 'arrived' });
      return;
    }
    let last = performance.now();
    let frame = requestAnimationFrame(function move(now) {
      const { value } = share.current;
      const next = Math.min(1, value + (now - last) / 1000 / step.seconds);
      last = now;
      share.current = { of: at, value: next };
      put(desk, glided(before, step, next));
      if (next < 1) frame = requestAnimationFrame(move);
      else {
        share.current = { of: -1, value: 0 };
        send({ is: 'arrived' });
      }
    });
    return () => cancelAnimationFrame(frame);
  }, [desk, at, phase, paused, before, target, step]);

  useEffect(() => {
    if (!runs || phase !== 'resting') return;
    const timer = setTimeout(() => send({ is: 'next' }), readingTime(step.text));
    return () => clearTimeout(timer);
  }, [runs, phase, step]);

  const patch = useStore(desk, (s) => s.patch);
  const touched = phase === 'resting' && !isSame(patch, target);
  const end = steps.slice(0, at + 1).findLast((s) => s.at !== undefined)?.at ?? null;
  return { desk, state, step, end, before, target, touched, send, comeBack: () => put(desk, target) };
}
