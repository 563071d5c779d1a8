'use client';
import Alert from '@mui/material/Alert';
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import IconButton from '@mui/material/IconButton';
import Slider from '@mui/material/Slider';
import { useEffect, useMemo, useState } from 'react';
import { useStore } from 'zustand';
import { idOf, kindNamed, knobPlace, nameOf, placeName, showNumber } from '@/core';
import { CloseIcon } from '@/ui/parts/icons';
import { tellFault } from '@/ui/parts/messages';
import { SelectField } from '@/ui/parts/SelectField';
import { hearing, openSound } from '@/ui/session/hearing';
import type { DeskStore } from '@/ui/session/desk';
import { fonts, ink } from '@/ui/theme/tokens';
import { Keys } from './Keys';
import type { Live } from './live';
import { Controllers } from './midi';
import { Pads } from './Pads';
import { fader, fromController, isFader, playable } from './played';
import type { Played } from './played';
import { RecordButton, TakeBar } from './TakeBar';
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

/** Which knob a controller's number moves. */
type Learnt = Readonly<Record<number, string>>;

/** Turns knobs as the editor's own knobs do: one edit for each move, together while they follow each other. */
function useTurning(desk: DeskStore) {
  return useMemo(() => {
    return (at: string, value: number): void => {
      const { edit, patch } = desk.getState();
      const set = { do: 'set', module: idOf(at), param: nameOf(at), value } as const;
      edit(`Play ${knobPlace(patch.modules, at)}`, [set], `play ${at}`);
    };
  }, [desk]);
}

/** Controllers, and which knobs they were taught to move. */
function useControllers(played: readonly Played[], turn: (at: string, value: number) => void) {
  const [controllers] = useState(() => new Controllers());
  const [learnt, setLearnt] = useState<Learnt>({});
  const [learning, setLearning] = useState<string | null>(null);
  const [devices, setDevices] = useState<readonly string[] | null>(null);
  useEffect(() => () => controllers.close(), [controllers]);
  useEffect(
    () =>
      controllers.listen((word) => {
        if (word.is !== 'control') return;
        if (learning !== null) {
          setLearnt((l) => ({ ...l, [word.number]: learning }));
          setLearning(null);
        }
        const at = learning ?? learnt[word.number];
        const knob = played.find((p) => p.at === at);
        if (knob) turn(knob.at, fromController(knob, word.value));
      }),
    [controllers, learnt, learning, played, turn],
  );
  const open = (): void => void controllers.open().then(setDevices).catch(tellFault);
  const numberOf = (at: string): string | undefined => Object.entries(learnt).find(([, a]) => a === at)?.[0];
  return { controllers, learning, setLearning, devices, open, numberOf };
}

/** What hands play: faders, keys, a controller; and what they played, recorded. */
export function HandsPanel({ desk, live }: Props) {
  const patch = useStore(desk, (s) => s.patch);
  const all = useMemo(() => playable(patch), [patch]);
  const [more, setMore] = useState<readonly string[]>([]);
  const [tries, setTries] = useState(false);
  const keys = useStore(hearing, (s) => s.parts.has('keyboard'));
  const pads = useStore(hearing, (s) => s.parts.has('pad'));
  const shown = [
    ...all.filter((p) => isFader(patch, p.at)).slice(0, FIRST),
    ...more.flatMap((at) => all.find((p) => p.at === at) ?? []),
  ];
  const turn = useTurning(desk);
  const { controllers, learning, setLearning, devices, open, numberOf } = useControllers(all, turn);
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
            onTurn={(value) => turn(p.at, value)}
            onLearn={() => setLearning(learning === p.at ? null : p.at)}
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

interface FaderProps {
  readonly played: Played;
  readonly learning: boolean;
  readonly number: string | undefined;
  readonly onTurn: (value: number) => void;
  readonly onLearn: () => void;
  readonly onRemove: (() => void) | null;
}

function Fader({ played, learning, number, onTurn, onLearn, onRemove }: FaderProps) {
  const { at, label, min, max, value, unit } = played;
  return (
    <Box sx={{ width: 150 }} data-fader={at}>
      <Box sx={{ display: 'flex', alignItems: 'center', fontSize: 13, minHeight: 28 }}>
        <Box
          sx={{ flex: 1, minWidth: 0, overflow: 'hidden', textOverflow: 'ellipsis', whiteSpace: 'nowrap' }}
          title={label}
        >
          {label}
        </Box>
        {onRemove && (
          <IconButton size="small" aria-label={`Remove ${label}`} onClick={onRemove}>
            <CloseIcon sx={{ fontSize: 16 }} />
          </IconButton>
        )}
      </Box>
      <Slider
        aria-label={`Play ${label}`}
        size="small"
        min={min}
        max={max}
        step={(max - min) / 500}
        value={value}
        onChange={(_, v) => onTurn(v as number)}
        sx={{ touchAction: 'none' }}
      />
      <Box sx={{ display: 'flex', alignItems: 'center', gap: 1 }}>
        <Box sx={{ flex: 1, fontFamily: fonts.numbers, fontSize: 13 }}>
          {`${showNumber(value, 2)}${unit ? `\u00a0${unit}` : ''}`}
        </Box>
        <Button aria-pressed={learning} onClick={onLearn}>
          {learning ? 'Waiting…' : number === undefined ? 'MIDI learn' : `CC ${number}`}
        </Button>
      </Box>
    </Box>
  );
}
