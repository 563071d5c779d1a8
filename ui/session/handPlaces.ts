import { useEffect, useState } from 'react';
import { useStore } from 'zustand';
import { handAt, idOf } from '@/core';
import type { Hand } from '@/core';
import type { DeskStore } from './desk';
import { hearing } from './hearing';
import { meters } from './meters';
import { moment } from './moment';

const NONE: readonly Hand[] = [];
const NOWHERE: ReadonlyMap<string, number> = new Map();

/** Where hands have a module's knobs: as it is heard, else at the moment that is pointed at, else where they begin. */
export function useHandPlaces(desk: DeskStore, id: string): ReadonlyMap<string, number> {
  const all = useStore(desk, (s) => s.patch.hands);
  const plays = useStore(hearing, (s) => s.playing);
  const at = useStore(moment, (s) => s.at);
  const hands = all.length === 0 ? NONE : all.filter((h) => idOf(h.at) === id);
  const [seconds, setSeconds] = useState(0);
  const moves = plays && hands.length > 0;
  useEffect(() => {
    if (!moves) return undefined;
    let frame = 0;
    const look = (): void => {
      setSeconds(meters.seconds);
      frame = requestAnimationFrame(look);
    };
    frame = requestAnimationFrame(look);
    return () => cancelAnimationFrame(frame);
  }, [moves]);
  if (hands.length === 0) return NOWHERE;
  const now = moves ? seconds : (at ?? 0);
  return new Map(hands.map((h) => [h.at, handAt(h, now)]));
}
