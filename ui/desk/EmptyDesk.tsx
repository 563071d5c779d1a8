'use client';
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import { applyEdits, freeId } from '@/core';
import type { Patch } from '@/core';
import { AddMenu } from './AddMenu';
import type { Edit } from './edit';

interface Props {
  readonly patch: Patch;
  readonly edit: Edit;
  readonly onAdded: (id: string) => void;
}

/** A slow oscillator over a filter's cutoff: enough to see what a strip is. */
function firstPath(patch: Patch): Patch {
  const [swell, tone] = [freeId(patch, 'swell'), freeId(patch, 'tone')];
  return applyEdits(patch, [
    { op: 'add-module', module: { id: swell, kind: 'lfo', label: 'Slow swell', params: { rateHz: 0.25 } } },
    { op: 'add-module', module: { id: tone, kind: 'filter', label: 'Tone', params: { cutoffHz: 400 } } },
    { op: 'plug', cable: { from: `${swell}.out`, to: `${tone}.cutoff` } },
  ]);
}

export function EmptyDesk({ patch, edit, onAdded }: Props) {
  return (
    <Box sx={{ flex: 1, p: 4, maxWidth: 520 }}>
      <h1>No path yet</h1>
      <p>
        Add a source and a destination, then choose in the destination’s sockets what each input gets. Or begin with a
        slow oscillator over a filter’s cutoff.
      </p>
      <Box sx={{ display: 'flex', gap: 1 }}>
        <Button color="primary" onClick={() => edit('a first path', firstPath)}>
          Begin with a first path
        </Button>
        <AddMenu patch={patch} edit={edit} onAdded={onAdded} />
      </Box>
    </Box>
  );
}
