'use client';
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import { useState } from 'react';
import { applyEdits } from '@/core';
import type { Patch } from '@/core';
import { Chooser } from '@/ui/parts/Chooser';
import type { DeskStore } from '@/ui/session/desk';
import { offerPreview } from '@/ui/session/previews';
import type { Preview } from '@/ui/session/previews';
import { takeKeys } from '@/ui/session/typeahead';
import type { Predicted } from '@/ui/session/usePrediction';
import { planOf } from '../commands/tasks';
import type { Made, Task } from '../commands/tasks';

const previewOf = (patch: Patch, made: Made | null): Preview | null =>
  made && { patch: applyEdits(patch, made.edits), ...(made.show !== undefined && { show: made.show }) };

interface Props {
  readonly desk: DeskStore;
  readonly predicted: Predicted;
  readonly task: Task;
  readonly begin: (task: Task | null) => void;
}

/** A choice that is made: what is gone over stands dashed in the strip. */
export function TaskPanel({ desk, predicted, task, begin }: Props) {
  const [start] = useState(takeKeys);
  const plan = planOf(task, predicted);
  const pick = (key: string): void => {
    const { edit, select, showEnd } = desk.getState();
    const made = plan.make(key);
    begin(null);
    if (!made) return;
    edit(made.label, made.edits);
    if (made.show !== undefined) showEnd(made.show);
    if (made.select !== undefined) select(made.select);
  };
  return (
    <Box component="section" aria-label={plan.title}>
      <Box sx={{ display: 'flex', justifyContent: 'space-between', alignItems: 'flex-start', gap: 1, mb: 1 }}>
        <Box component="h2" sx={{ fontSize: 15, m: 0 }}>
          {plan.title}
        </Box>
        <Button onClick={() => begin(null)} sx={{ flexShrink: 0 }}>
          Cancel
        </Button>
      </Box>
      <Chooser
        label={plan.title}
        choices={plan.choices}
        start={start}
        onCancel={() => begin(null)}
        onHighlight={(choice) => offerPreview(choice && previewOf(predicted.graph.patch, plan.make(choice.key)))}
        onPick={(choice) => pick(choice.key)}
      />
    </Box>
  );
}
