'use client';
import Alert from '@mui/material/Alert';
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import { useEffect, useMemo, useState } from 'react';
import { useStore } from 'zustand';
import { idOf, kindNamed, knobPlace, nameOf, placeName } from '@/core';
import { tellFault } from '@/ui/parts/messages';
import { SelectField } from '@/ui/parts/SelectField';
import { toggled } from '@/ui/session/audition';
import { hearing, openSound, playing } from '@/ui/session/hearing';
import type { DeskStore } from '@/ui/session/desk';
import { ink } from '@/ui/theme/tokens';
import { Fader } from './Fader';
import { Keys } from './Keys';
import type { Live } from './live';
import { controlName, Controllers } from './midi';
import { Pads } from './Pads';
import { fader, isFader, playable, shareOf, valueAt } from './played';
import { RecordButton, TakeBar } from './TakeBar';
import { Takeover } from './takeover';
import { TryController } from './TryController';

interface Props {
  readonly desk: DeskStore;
  readonly live: Live;
}

/** Never more than half of an editor that must fit on the screen. */
const panelStyle = {
  px: 2,
  py: 1,
  borderBottom: `1px solid ${ink.line}`,
  maxHeight: { md: '50vh' },
  overflowY: { md: 'auto' },
} as const;

/** How many faders are there without being asked for. */
const FIRST = 6;

/** Turns knobs as the editor's own knobs do: one edit for each move, together while they follow each other. */
function useTurning(desk: DeskStore) {
  return useMemo(() => {
    return (at: string, value: number): void => {
      const { edit, patch } = desk.getState();
      const set = { do: 'set', module: idOf(at), param: nameOf(at), value } as const;
      playing(() => edit(`Play ${knobPlace(patch.modules, at)}`, [set], `play ${at}`));
    };
  }, [desk]);
}

/** A control moves one knob, and a knob is moved by one control; kept with the patch. */
function assign(desk: DeskStore, number: number, at: string): void {
  const { edit, patch } = desk.getState();
  const others = patch.controls.filter((c) => c.at === at && c.number !== number);
  edit(`Assign ${controlName(number)} to ${knobPlace(patch.modules, at)}`, [
    ...others.map((c) => ({ do: 'control', number: c.number, at: null }) as const),
    { do: 'control', number, at },
  ]);
}

function forget(desk: DeskStore, at: string): void {
  const { edit, patch } = desk.getState();
  const ends = patch.controls.filter((c) => c.at === at);
  edit(
    `Unassign ${knobPlace(patch.modules, at)}`,
    ends.map((c) => ({ do: 'control', number: c.number, at: null }) as const),
  );
}

/** Controllers, which knobs they were taught to move, and those that wait for them. */
function useControllers(desk: DeskStore, turn: (at: string, value: number) => void) {
  const [controllers] = useState(() => new Controllers());
  const [takeover] = useState(() => new Takeover());
  const [waiting, setWaiting] = useState<ReadonlySet<string>>(new Set());
  const assigned = useStore(desk, (s) => s.patch.controls);
  const [learning, setLearning] = useState<string | null>(null);
  const [devices, setDevices] = useState<readonly string[] | null>(null);
  useEffect(() => () => controllers.close(), [controllers]);
  useEffect(
    () =>
      controllers.listen((word) => {
        if (word.is !== 'control') return;
        if (learning !== null) {
          assign(desk, word.number, learning);
          setLearning(null);
        }
        const { controls } = desk.getState().patch;
        const at = controls.find((c) => c.number === word.number)?.at;
        // Messages come faster than the screen is drawn: where the knob stands now is what counts.
        const knob = playable(desk.getState().patch).find((p) => p.at === at);
        if (!knob) return;
        const share = takeover.move(word.number, knob.at, shareOf(knob), word.share);
        setWaiting((w) => (w.has(knob.at) === (share === null) ? w : toggled(w, knob.at)));
        if (share !== null) turn(knob.at, valueAt(knob, share));
      }),
    [controllers, takeover, learning, desk, turn],
  );
  const open = (): void => void controllers.open().then(setDevices).catch(tellFault);
  const numberOf = (at: string): number | undefined => assigned.find((c) => c.at === at)?.number;
  return { controllers, learning, setLearning, waiting, devices, open, numberOf };
}

/** What hands play: faders, keys, a controller; and what they played, recorded. */
export function HandsPanel({ desk, live }: Props) {
  const patch = useStore(desk, (s) => s.patch);
  const all = useMemo(() => playable(patch), [patch]);
  const [more, setMore] = useState<readonly string[]>([]);
  const [tries, setTries] = useState(false);
  const keys = useStore(hearing, (s) => s.parts.has('keyboard'));
  const pads = useStore(hearing, (s) => s.parts.has('pad'));
  const faders = all.filter((p) => isFader(patch, p.at)).slice(0, FIRST);
  const added = [...new Set([...patch.controls.map((c) => c.at), ...more])];
  const shown = [
    ...faders,
    ...added.flatMap((at) => all.find((p) => p.at === at && !faders.some((f) => f.at === at)) ?? []),
  ];
  const turn = useTurning(desk);
  const { controllers, learning, setLearning, waiting, devices, open, numberOf } = useControllers(desk, turn);
  const others = all.filter((p) => !shown.some((s) => s.at === p.at));
  return (
    <Box component="section" aria-label="Controls" sx={panelStyle}>
      <Box sx={{ display: 'flex', flexWrap: 'wrap', gap: 2, alignItems: 'flex-end' }}>
        <RecordButton live={live} />
        {shown.map((p) => (
          <Fader
            key={p.at}
            played={p}
            learning={learning === p.at}
            number={numberOf(p.at)}
            waits={waiting.has(p.at)}
            onTurn={(value) => turn(p.at, value)}
            onLearn={() => setLearning(learning === p.at ? null : p.at)}
            onForget={() => {
              setLearning(null);
              forget(desk, p.at);
            }}
            onRemove={more.includes(p.at) ? () => setMore(more.filter((at) => at !== p.at)) : null}
          />
        ))}
        {others.length > 0 && (
          <SelectField
            label="Add a control"
            value=""
            options={[['', 'Add a control…'] as const, ...others.map((p) => [p.at, p.label] as const)]}
            onChange={(at) => at !== '' && setMore([...more, at])}
            sx={{ minWidth: 150 }}
          />
        )}
        {patch.modules
          .filter((m) => kindNamed(m.kind)?.panel?.drawn)
          .map((m) => (
            <Button
              key={m.id}
              onClick={() => desk.getState().edit(`Play ${placeName(patch.modules, m.id)}`, [fader(m)])}
            >
              {`Play ${placeName(patch.modules, m.id)}`}
            </Button>
          ))}
        <Button aria-pressed={keys} onClick={() => openSound('keyboard', !keys)}>
          Keyboard
        </Button>
        <Button aria-pressed={pads} onClick={() => openSound('pad', !pads)}>
          XY pad
        </Button>
        <Button onClick={open}>{devices === null ? 'MIDI devices' : `${devices.length} MIDI devices`}</Button>
        <Button aria-pressed={tries} onClick={() => setTries(!tries)}>
          Virtual controller
        </Button>
      </Box>
      <TakeBar desk={desk} live={live} />
      {learning !== null && (
        <Alert severity="info">Move a control on your MIDI device to assign it to this knob.</Alert>
      )}
      {tries && <TryController controllers={controllers} />}
      {pads && <Pads patch={patch} turn={turn} />}
      {keys && <Keys patch={patch} controllers={controllers} turn={turn} />}
    </Box>
  );
}
