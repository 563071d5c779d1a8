'use client';
import Box from '@mui/material/Box';
import ButtonBase from '@mui/material/ButtonBase';
import { useState } from 'react';
import type { KeyboardEvent, PointerEvent } from 'react';
import type { Patch } from '@/core';
import { SelectField } from '@/ui/parts/SelectField';
import { ink } from '@/ui/theme/tokens';
import { isFader, playable, shareOf, valueAt } from './played';
import type { Played } from './played';

interface Props {
  readonly patch: Patch;
  readonly turn: (at: string, value: number) => void;
}

/** A gate's voltage, where the fader reaches so far. */
const GATE = 5;
const MOST_GATES = 8;
const SIDE = 132;
/** What an arrow key moves, of the whole way. */
const STEP = 0.02;

/** A pad for two knobs at once, and a pad for each fader that a held finger opens. */
export function Pads({ patch, turn }: Props) {
  const all = playable(patch);
  const gates = all.filter((p) => isFader(patch, p.at) && p.min <= 0 && p.max > 0).slice(0, MOST_GATES);
  const [goes, setGoes] = useState<readonly [string, string]>([all[0]?.at ?? '', all[1]?.at ?? '']);
  const [across, up] = goes.map((at) => all.find((p) => p.at === at));
  const choose = (label: string, which: 0 | 1) => (
    <SelectField
      label={label}
      value={goes[which]}
      options={[
        ['', `${which === 0 ? 'across' : 'up'}: nothing`] as const,
        ...all.map((p) => [p.at, p.label] as const),
      ]}
      onChange={(at) => setGoes(which === 0 ? [at, goes[1]] : [goes[0], at])}
      sx={{ minWidth: 150 }}
    />
  );
  return (
    <Box sx={{ display: 'flex', flexWrap: 'wrap', gap: 2, mt: 1 }}>
      <TwoWays across={across} up={up} turn={turn} />
      <Box sx={{ display: 'flex', flexDirection: 'column', gap: 1 }}>
        {choose('X axis', 0)}
        {choose('Y axis', 1)}
      </Box>
      <Box sx={{ display: 'flex', flexWrap: 'wrap', gap: 1, alignContent: 'flex-start' }}>
        {gates.map((p) => (
          <Gate key={p.at} played={p} turn={turn} />
        ))}
      </Box>
    </Box>
  );
}

interface TwoWaysProps {
  readonly across: Played | undefined;
  readonly up: Played | undefined;
  readonly turn: Props['turn'];
}

const arrows: Readonly<Record<string, readonly [number, number]>> = {
  ArrowLeft: [-STEP, 0],
  ArrowRight: [STEP, 0],
  ArrowUp: [0, STEP],
  ArrowDown: [0, -STEP],
};

/** A square whose point is where two knobs stand. */
function TwoWays({ across, up, turn }: TwoWaysProps) {
  const [x, y] = [across ? shareOf(across) : 0.5, up ? shareOf(up) : 0.5];
  const go = (toX: number, toY: number): void => {
    if (across) turn(across.at, valueAt(across, toX));
    if (up && up.at !== across?.at) turn(up.at, valueAt(up, toY));
  };
  const follow = (e: PointerEvent<HTMLElement>): void => {
    const box = e.currentTarget.getBoundingClientRect();
    go((e.clientX - box.left) / box.width, 1 - (e.clientY - box.top) / box.height);
  };
  const byKey = (e: KeyboardEvent): void => {
    const way = arrows[e.key];
    if (!way) return;
    e.preventDefault();
    go(x + way[0], y + way[1]);
  };
  return (
    <ButtonBase
      disableRipple
      data-pad
      aria-label={`XY pad: X ${across?.label ?? 'off'}, Y ${up?.label ?? 'off'}; the arrow keys move it`}
      onPointerDown={(e) => {
        e.currentTarget.setPointerCapture(e.pointerId);
        follow(e);
      }}
      onPointerMove={(e) => e.buttons > 0 && follow(e)}
      onKeyDown={byKey}
      sx={{
        position: 'relative',
        width: SIDE,
        height: SIDE,
        border: `1px solid ${ink.softInk}`,
        borderRadius: 1,
        background: ink.raised,
        touchAction: 'none',
      }}
    >
      <Box
        sx={{
          position: 'absolute',
          left: `${100 * x}%`,
          bottom: `${100 * y}%`,
          width: 14,
          height: 14,
          m: '-7px',
          border: `2px solid ${ink.ink}`,
          background: ink.wanted,
        }}
      />
    </ButtonBase>
  );
}

/** Open while it is held. */
function Gate({ played, turn }: { readonly played: Played; readonly turn: Props['turn'] }) {
  const [held, setHeld] = useState(false);
  const hold = (on: boolean): void => {
    if (on === held) return;
    setHeld(on);
    turn(played.at, on ? Math.min(GATE, played.max) : 0);
  };
  return (
    <ButtonBase
      disableRipple
      data-gate={played.at}
      aria-pressed={held}
      onPointerDown={(e) => {
        e.currentTarget.setPointerCapture(e.pointerId);
        hold(true);
      }}
      onPointerUp={() => hold(false)}
      onPointerCancel={() => hold(false)}
      onKeyDown={(e) => e.key === 'Enter' && hold(true)}
      onKeyUp={(e) => e.key === 'Enter' && hold(false)}
      onBlur={() => hold(false)}
      sx={{
        width: 88,
        height: 62,
        p: 0.5,
        fontSize: 13,
        border: `1px solid ${ink.softInk}`,
        borderRadius: 1,
        background: held ? ink.wanted : ink.raised,
        touchAction: 'none',
      }}
    >
      {played.label}
    </ButtonBase>
  );
}
