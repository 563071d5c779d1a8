'use client';
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import ButtonBase from '@mui/material/ButtonBase';
import type { KeyboardEvent } from 'react';
import { FADER, kindNamed, noteOfVolts, showNumber } from '@/core';
import type { Patch } from '@/core';
import type { KeyTuning } from '@/core/formats/keyTuning';
import { midiFileOf } from '@/core/formats/midiOut';
import { counted } from '@/ui/parts/counted';
import { saveFile } from '@/ui/parts/files';
import { SelectField } from '@/ui/parts/SelectField';
import { ink } from '@/ui/theme/tokens';
import type { KeyLog } from './keyLog';
import { PARTS, useKeys } from './useKeys';
import type { KeysProps } from './useKeys';
import { isUpper, KEYS, voltsOfKey } from './played';
import { TuningOfKeys } from './TuningOfKeys';

/** Two octaves of keys: by pointer, by several fingers, and by the computer's own keys while they have the focus. */
export function Keys(props: KeysProps) {
  const { faders, goes, setGoes, down, press, release, log, tuning } = useKeys(props);
  const byLetter = (e: KeyboardEvent, act: (key: number) => void): void => {
    const key = KEYS.indexOf(e.key.toLowerCase());
    if (key < 0 || e.ctrlKey || e.metaKey || e.altKey) return;
    e.preventDefault();
    e.stopPropagation();
    if (!e.repeat) act(key);
  };
  if (faders.length === 0)
    return (
      <Box role="status" sx={{ mt: 1, color: ink.softInk }}>
        {`The keyboard plays modules of the kind ${kindNamed(FADER)?.title ?? FADER}, and this patch has none. Add one for the pitch, one for the gate.`}
      </Box>
    );
  return (
    <Box sx={{ mt: 1 }}>
      <Box sx={{ display: 'flex', flexWrap: 'wrap', gap: 1, mb: 0.75 }}>
        {PARTS.map((part) => (
          <SelectField
            key={part}
            label={`The keys’ ${part} goes to`}
            value={goes[part] ?? ''}
            options={[['', `${part}: off`] as const, ...faders.map((f) => [f.at, `${part}: ${f.label}`] as const)]}
            onChange={(at) => setGoes({ ...goes, [part]: at === '' ? undefined : at })}
            sx={{ minWidth: 150 }}
          />
        ))}
        <TuningOfKeys tuning={tuning} controllers={props.controllers} />
        <KeysOut log={log} patch={props.patch} tuning={tuning} />
      </Box>
      <Box
        role="group"
        aria-label="Keyboard"
        tabIndex={0}
        onKeyDown={(e) => byLetter(e, press)}
        onKeyUp={(e) => byLetter(e, release)}
        onBlur={() => down.forEach(release)}
        sx={{ display: 'flex', gap: '2px', height: 44, touchAction: 'none', overflowX: 'auto' }}
      >
        {KEYS.map((letter, key) => (
          <Key
            key={letter}
            letter={letter}
            number={key}
            tuning={tuning}
            down={down.includes(key)}
            onPress={() => press(key)}
            onRelease={() => release(key)}
          />
        ))}
      </Box>
    </Box>
  );
}

interface KeyProps {
  readonly letter: string;
  readonly number: number;
  readonly tuning: KeyTuning;
  readonly down: boolean;
  readonly onPress: () => void;
  readonly onRelease: () => void;
}

/** What a key plays, in words: `E4 −14 ct`. */
function keyName(volts: number | null): string {
  if (volts === null) return 'plays nothing';
  const { name, cents } = noteOfVolts(volts);
  return Math.abs(cents) < 0.5 ? name : `${name} ${showNumber(cents, 0)} ct`;
}

function Key({ letter, number, tuning, down, onPress, onRelease }: KeyProps) {
  const volts = voltsOfKey(number, tuning);
  return (
    <ButtonBase
      tabIndex={-1}
      aria-label={`Key ${keyName(volts)}`}
      disabled={volts === null}
      aria-pressed={down}
      onPointerDown={(e) => {
        e.currentTarget.setPointerCapture(e.pointerId);
        onPress();
      }}
      onPointerUp={onRelease}
      onPointerCancel={onRelease}
      sx={{
        flex: '1 0 26px',
        alignItems: 'flex-end',
        pb: 0.5,
        fontSize: 12,
        border: `1px solid ${ink.line}`,
        borderRadius: 0.5,
        color: isUpper(number) ? ink.paper : ink.ink,
        opacity: volts === null ? 0.3 : 1,
        background: down ? ink.wanted : isUpper(number) ? ink.softInk : ink.raised,
      }}
    >
      {letter}
    </ButtonBase>
  );
}

/** What was played on the keys, as a file. */
function KeysOut({ log, patch, tuning }: { readonly log: KeyLog; readonly patch: Patch; readonly tuning: KeyTuning }) {
  const save = (): void => {
    const bytes = midiFileOf(patch.name, log.notes(), patch.settings.bpm, tuning);
    saveFile(`${patch.name}.mid`, new Blob([bytes], { type: 'audio/midi' }));
  };
  if (log.length === 0) return null;
  return (
    <>
      <Button onClick={save}>{`Save ${counted(log.length, 'note')} as MIDI`}</Button>
      <Button onClick={() => log.forget()}>Discard</Button>
    </>
  );
}
