import { useEffect, useMemo, useRef, useState } from 'react';
import { useStore } from 'zustand';
import type { Patch } from '@/core';
import { equalTuning } from '@/core/formats/keyTuning';
import { settings } from '@/ui/parts/settings';
import { KeyLog } from './keyLog';
import type { Controllers } from './midi';
import { FIRST_KEY, isFader, playable, voltsOfKey } from './played';

export interface KeysProps {
  readonly patch: Patch;
  readonly controllers: Controllers;
  readonly turn: (at: string, value: number) => void;
}

export const PARTS = ['pitch', 'gate', 'velocity'] as const;
type KeyOutput = (typeof PARTS)[number];
/** What a pressed key's gate and its strongest touch come to, volts. */
const GATE = 5;
const STRONG = 5;
/** How strong a key on the screen is. */
const TOUCH = 100;

/** Which fader each part of a key goes to, and what is pressed; the last one down is heard. */
export function useKeys({ patch, controllers, turn }: KeysProps) {
  const faders = useMemo(() => playable(patch).filter((p) => isFader(patch, p.at)), [patch]);
  const [goes, setGoes] = useState<Readonly<Partial<Record<KeyOutput, string>>>>({});
  const [down, setDown] = useState<readonly number[]>([]);
  const now = useRef<readonly number[]>([]);
  const tuning = useStore(settings, (s) => s.keyTuning) ?? equalTuning;
  const [log] = useState(() => new KeyLog(() => performance.now() / 1000));
  const send = (part: KeyOutput, volts: number): void => {
    const fader = faders.find((f) => f.at === goes[part]);
    if (fader) turn(fader.at, Math.min(fader.max, Math.max(fader.min, volts)));
  };
  const hold = (keys: readonly number[]): void => {
    now.current = keys;
    setDown(keys);
  };
  const press = (key: number, velocity = TOUCH): void => {
    const volts = voltsOfKey(key, tuning);
    if (volts === null || now.current.includes(key)) return;
    log.press(key, velocity / 127);
    hold([...now.current, key]);
    send('pitch', volts);
    send('velocity', (velocity / 127) * STRONG);
    send('gate', GATE);
  };
  const release = (key: number): void => {
    if (!now.current.includes(key)) return;
    log.release(key);
    const left = now.current.filter((k) => k !== key);
    hold(left);
    const last = left.at(-1);
    const volts = last === undefined ? null : voltsOfKey(last, tuning);
    if (volts !== null) send('pitch', volts);
    if (last === undefined) send('gate', 0);
  };
  const acts = useRef({ press, release });
  useEffect(() => {
    acts.current = { press, release };
  });
  useEffect(
    () =>
      controllers.listen((word) => {
        if (word.is !== 'note') return;
        const key = word.key - FIRST_KEY;
        if (word.velocity > 0) acts.current.press(key, word.velocity);
        else acts.current.release(key);
      }),
    [controllers],
  );
  return { faders, goes, setGoes, down, press, release, log, tuning };
}
