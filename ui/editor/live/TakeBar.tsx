'use client';
import Alert from '@mui/material/Alert';
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import { useStore } from 'zustand';
import { applyEdits, knobPlace } from '@/core';
import { counted } from '@/ui/parts/counted';
import { RecordIcon } from '@/ui/parts/icons';
import { tell } from '@/ui/parts/messages';
import type { DeskStore } from '@/ui/session/desk';
import type { Live } from './live';
import { handEdits } from './take';

interface Props {
  readonly desk: DeskStore;
  readonly live: Live;
}

/** A name that no variant has: `Take 1`. */
function freeName(taken: readonly string[]): string {
  for (let n = 1; ; n++) if (!taken.includes(`Take ${n}`)) return `Take ${n}`;
}

/** Records what hands turn while the patch plays; what was recorded is kept as one edit, as a variant, or dropped. */
export function TakeBar({ desk, live }: Props) {
  const take = useStore(live.store, (s) => s.take);
  const modules = useStore(desk, (s) => s.patch.modules);
  const keep = (): void => {
    if (!take) return;
    desk.getState().edit(`Record ${counted(take.length, 'knob')}`, handEdits(take));
    live.drop();
  };
  const keepApart = (): void => {
    if (!take) return;
    const { patch, edit } = desk.getState();
    const name = freeName(patch.variants.map((v) => v.name));
    edit(`Save variant ${name}`, [{ do: 'variant', name, state: applyEdits(patch, handEdits(take)) }]);
    tell(`Saved as variant ${name}.`);
    live.drop();
  };
  if (!take) return null;
  return (
    <Alert
      severity="info"
      data-take={take.length}
      sx={{ mt: 1 }}
      action={
        <Box sx={{ display: 'flex', flexWrap: 'wrap', gap: 1 }}>
          <Button color="primary" onClick={keep}>
            Keep as automation
          </Button>
          <Button onClick={keepApart}>Save as variant</Button>
          <Button onClick={() => live.drop()}>Discard</Button>
        </Box>
      }
    >
      {`${counted(take.length, 'knob')} recorded: ${take.map((h) => knobPlace(modules, h.at)).join(', ')}.`}
    </Alert>
  );
}

/** Begins a take, and ends it. */
export function RecordButton({ live }: { readonly live: Live }) {
  const { phase, recording } = useStore(live.store);
  return (
    <Button
      color={recording ? 'primary' : 'inherit'}
      startIcon={<RecordIcon />}
      disabled={phase !== 'playing'}
      aria-pressed={recording}
      onClick={() => live.record(!recording)}
    >
      {recording ? 'Stop recording' : 'Record'}
    </Button>
  );
}
