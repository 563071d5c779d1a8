'use client';
import Box from '@mui/material/Box';
import ButtonBase from '@mui/material/ButtonBase';
import { useEffect, useMemo, useRef, useState } from 'react';
import type { KeyboardEvent } from 'react';
import { noteOfVolts } from '@/core';
import type { Patch } from '@/core';
import { SelectField } from '@/ui/parts/SelectField';
import { ink } from '@/ui/theme/tokens';
import type { Controllers } from './midi';
import { isFader, isUpper, KEYS, playable, voltsOfKey } from './played';

interface Props {
  readonly patch: Patch;
  readonly controllers: Controllers;
  readonly turn: (at: string, value: number) => void;
}

const PARTS = ['pitch', 'gate', 'velocity'] as const;
type Part = (typeof PARTS)[number];
/** What a pressed key's gate and its strongest touch come to, volts. */
const GATE = 5;
const STRONG = 5;
/** A key of the middle octave begins at 0 V. */
const MIDDLE = 60;
/** How strong a key on the screen is. */
const TOUCH = 100;

/** Which fader each part of a key goes to, and what is pressed; the last one down is heard. */
function usePlaying({ patch, controllers, turn }: Props) {
  const faders = useMemo(() => playable(patch).filter((p) => isFader(patch, p.at)), [patch]);
  const [goes, setGoes] = useState<Readonly<Partial<Record<Part, string>>>>({});
  const [down, setDown] = useState<readonly number[]>([]);
  const now = useRef<readonly number[]>([]);
  const send = (part: Part, volts: number): void => {
    const fader = faders.find((f) => f.at === goes[part]);
    if (fader) turn(fader.at, Math.min(fader.max, Math.max(fader.min, volts)));
  };
  const hold = (keys: readonly number[]): void => {
    now.current = keys;
    setDown(keys);
  };
  const press = (key: number, velocity = TOUCH): void => {
    if (now.current.includes(key)) return;
    hold([...now.current, key]);
    send('pitch', voltsOfKey(key));
    send('velocity', (velocity / 127) * STRONG);
    send('gate', GATE);
  };
  const release = (key: number): void => {
    if (!now.current.includes(key)) return;
    const left = now.current.filter((k) => k !== key);
    hold(left);
    const last = left.at(-1);
    if (last === undefined) send('gate', 0);
    else send('pitch', voltsOfKey(last));
  };
  const acts = useRef({ press, release });
  useEffect(() => {
    acts.current = { press, release };
  });
  useEffect(
    () =>
      controllers.listen((word) => {
        if (word.is !== 'note') return;
        const key = word.key - MIDDLE + 12;
        if (word.velocity > 0) acts.current.press(key, word.velocity);
        else acts.current.release(key);
      }),
    [controllers],
  );
  return { faders, goes, setGoes, down, press, release };
}

/** Two octaves of keys: by pointer, by several fingers, and by the computer's own keys while they have the focus. */
export function Keys(props: Props) {
  const { faders, goes, setGoes, down, press, release } = usePlaying(props);
  const byLetter = (e: KeyboardEvent, act: (key: number) => void): void => {
    const key = KEYS.indexOf(e.key.toLowerCase());
    if (key < 0 || e.ctrlKey || e.metaKey || e.altKey) return;
    e.preventDefault();
    e.stopPropagation();
    if (!e.repeat) act(key);
  };
  if (faders.length === 0) return null;
  return (
    <Box sx={{ mt: 1 }}>
      <Box sx={{ display: 'flex', flexWrap: 'wrap', gap: 1, mb: 0.75 }}>
        {PARTS.map((part) => (
          <SelectField
            key={part}
            label={`The keys’ ${part} goes to`}
            value={goes[part] ?? ''}
            options={[['', `${part}: nowhere`] as const, ...faders.map((f) => [f.at, `${part}: ${f.label}`] as const)]}
            onChange={(at) => setGoes({ ...goes, [part]: at === '' ? undefined : at })}
            sx={{ minWidth: 150 }}
          />
        ))}
      </Box>
      <Box
        role="group"
        aria-label="Keys"
        tabIndex={0}
        onKeyDown={(e) => byLetter(e, press)}
        onKeyUp={(e) => byLetter(e, release)}
        onBlur={() => down.forEach(release)}
        sx={{ display: 'flex', gap: '2px', height: 44, touchAction: 'none', overflowX: 'auto' }}
      >
        {KEYS.map((letter, key) => {
          const { name } = noteOfVolts(voltsOfKey(key));
          return (
            <ButtonBase
              key={letter}
              tabIndex={-1}
              aria-label={`Key ${name}`}
              aria-pressed={down.includes(key)}
              onPointerDown={(e) => {
                e.currentTarget.setPointerCapture(e.pointerId);
                press(key);
              }}
              onPointerUp={() => release(key)}
              onPointerCancel={() => release(key)}
              sx={{
                flex: '1 0 26px',
                alignItems: 'flex-end',
                pb: 0.5,
                fontSize: 12,
                border: `1px solid ${ink.line}`,
                borderRadius: 0.5,
                color: isUpper(key) ? ink.paper : ink.ink,
                background: down.includes(key) ? ink.wanted : isUpper(key) ? ink.softInk : ink.raised,
              }}
            >
              {letter}
            </ButtonBase>
          );
        })}
      </Box>
    </Box>
  );
}
