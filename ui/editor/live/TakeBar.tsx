'use client';
import Alert from '@mui/material/Alert';
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import Checkbox from '@mui/material/Checkbox';
import FormControlLabel from '@mui/material/FormControlLabel';
import { useMemo, useState } from 'react';
import { useStore } from 'zustand';
import { applyEdits, knobPlace } from '@/core';
import { counted } from '@/ui/parts/counted';
import { RecordIcon } from '@/ui/parts/icons';
import { tell } from '@/ui/parts/messages';
import { SelectField } from '@/ui/parts/SelectField';
import type { DeskStore } from '@/ui/session/desk';
import type { Live } from './live';
import type { Recorded } from './take';
import { asPlayed, handEdits, handsOf } from './takeHands';
import type { TakeShape } from './takeHands';

interface Props {
  readonly desk: DeskStore;
  readonly live: Live;
}

/** Beats of what a take can be quantized to, and of how long it can be looped; a bar has four. */
const GRIDS = [
  ['', 'Not quantized'],
  ['1', 'Quantize to 1/4'],
  ['0.5', 'Quantize to 1/8'],
  ['0.25', 'Quantize to 1/16'],
  ['0.125', 'Quantize to 1/32'],
] as const;
const LOOPS = [
  ['', 'Not looped'],
  ['1', 'Loop the last beat'],
  ['4', 'Loop the last bar'],
  ['8', 'Loop the last 2 bars'],
  ['16', 'Loop the last 4 bars'],
  ['32', 'Loop the last 8 bars'],
] as const;

const beatsOf = (key: string): number | null => (key === '' ? null : Number(key));

/** A name that no variant has: `Take 1`. */
function freeName(taken: readonly string[]): string {
  for (let n = 1; ; n++) if (!taken.includes(`Take ${n}`)) return `Take ${n}`;
}

/** What was recorded: how it is kept, as one edit or as a variant; or dropped. */
export function TakeBar({ desk, live }: Props) {
  const take = useStore(live.store, (s) => s.take);
  return take && <Recording key={`${take.begun} ${take.ended}`} desk={desk} live={live} take={take} />;
}

function Recording({ desk, live, take }: Props & { readonly take: Recorded }) {
  const modules = useStore(desk, (s) => s.patch.modules);
  const [shape, setShape] = useState<TakeShape>(asPlayed);
  const hands = useMemo(() => handsOf(take, shape), [take, shape]);
  const keep = (): void => {
    desk.getState().edit(`Record ${counted(hands.length, 'knob')}`, handEdits(hands));
    live.recording.drop();
  };
  const keepApart = (): void => {
    const { patch, edit } = desk.getState();
    const name = freeName(patch.variants.map((v) => v.name));
    edit(`Save variant ${name}`, [{ do: 'variant', name, state: applyEdits(patch, handEdits(hands)) }]);
    tell(`Saved as variant ${name}.`);
    live.recording.drop();
  };
  return (
    <Alert severity="info" data-take={hands.length} sx={{ mt: 1, '& .MuiAlert-message': { flex: 1 } }}>
      {`${counted(hands.length, 'knob')} recorded: ${hands.map((h) => knobPlace(modules, h.at)).join(', ')}.`}
      <Box sx={{ display: 'flex', flexWrap: 'wrap', alignItems: 'center', gap: 1, mt: 0.5 }}>
        <SelectField
          label="Quantize the recording"
          value={String(shape.gridBeats ?? '')}
          options={GRIDS}
          onChange={(key) => setShape({ ...shape, gridBeats: beatsOf(key) })}
        />
        <SelectField
          label="Loop the recording"
          value={String(shape.loopBeats ?? '')}
          options={LOOPS}
          onChange={(key) => setShape({ ...shape, loopBeats: beatsOf(key) })}
        />
        {take.hands.length > 0 && (
          <FormControlLabel
            sx={{ m: 0 }}
            control={
              <Checkbox
                size="small"
                checked={shape.overdub}
                onChange={(e) => setShape({ ...shape, overdub: e.target.checked })}
              />
            }
            label="Overdub: keep the earlier automation around it"
          />
        )}
        <Button color="primary" onClick={keep}>
          Keep as automation
        </Button>
        <Button onClick={keepApart}>Save as variant</Button>
        <Button onClick={() => live.recording.drop()}>Discard</Button>
      </Box>
    </Alert>
  );
}

const COUNTS = [
  ['0', 'No count-in'],
  ['4', 'Count in 1 bar'],
  ['8', 'Count in 2 bars'],
] as const;

/** Begins a take, and ends it. */
export function RecordButton({ live }: { readonly live: Live }) {
  const { phase, recording, counting, countIn } = useStore(live.store);
  return (
    <Box sx={{ display: 'flex', alignItems: 'center', gap: 1 }}>
      <Button
        color={recording ? 'primary' : 'inherit'}
        startIcon={<RecordIcon />}
        disabled={phase !== 'playing'}
        aria-pressed={recording}
        onClick={() => live.recording.record(!recording)}
      >
        {counting ? 'Counting in…' : recording ? 'Stop recording' : 'Record'}
      </Button>
      <SelectField
        label="Count-in"
        value={String(countIn) as (typeof COUNTS)[number][0]}
        options={COUNTS}
        onChange={(key) => live.recording.setCountIn(Number(key))}
      />
    </Box>
  );
}
