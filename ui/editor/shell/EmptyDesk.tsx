'use client';
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import { socketAt } from '@/core';
import type { Edit } from '@/core';
import type { EditDesk } from '@/ui/session/edit';
import type { Task } from '../commands/tasks';

interface Props {
  readonly edit: EditDesk;
  readonly begin: (task: Task | null) => void;
}

/** An LFO over a filter's cutoff: enough to see what a strip is. */
const firstPath: readonly Edit[] = [
  { do: 'add', module: { id: 'swell', kind: 'lfo', label: 'Slow swell', params: { rateHz: 0.25 } } },
  { do: 'add', module: { id: 'tone', kind: 'filter', label: 'Tone', params: { cutoffHz: 400 } } },
  { do: 'plug', cable: { from: socketAt('swell', 'out'), to: socketAt('tone', 'cutoff') } },
];

export function EmptyDesk({ edit, begin }: Props) {
  return (
    <Box sx={{ flex: 1, p: 4, maxWidth: 520 }}>
      <h1>Empty patch</h1>
      <p>
        Start at the destination: choose what you want to control, then what drives it, then the stages between. Or
        start from an example: an LFO on a filter’s cutoff.
      </p>
      <Box sx={{ display: 'flex', gap: 1 }}>
        <Button color="primary" onClick={() => begin({ do: 'end' })}>
          Choose a destination
        </Button>
        <Button onClick={() => edit('Use the example', firstPath)}>Use the example</Button>
      </Box>
    </Box>
  );
}
