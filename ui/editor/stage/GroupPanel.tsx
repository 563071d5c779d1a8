'use client';
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import { bypassStages, duplicateStages, placeName, removeStages } from '@/core';
import type { Patch } from '@/core';
import type { EditDesk } from '@/ui/session/edit';

interface Props {
  readonly ids: readonly string[];
  readonly patch: Patch;
  readonly edit: EditDesk;
  readonly onDone: () => void;
}

/** Several chosen stages: what is done is done to all, as one edit. */
export function GroupPanel({ ids, patch, edit, onDone }: Props) {
  const said = `${ids.length} stages`;
  return (
    <Box component="section" aria-label="Selected stages">
      <Box component="h2" sx={{ fontSize: 15, m: 0 }}>{`${said} selected`}</Box>
      <Box component="ul" sx={{ pl: 2.5, my: 1 }}>
        {ids.map((id) => (
          <li key={id}>{placeName(patch.modules, id)}</li>
        ))}
      </Box>
      <Box sx={{ display: 'flex', gap: 1, flexWrap: 'wrap' }}>
        <Button onClick={() => edit(`Bypass ${said}`, bypassStages(patch, ids))}>Bypass</Button>
        <Button onClick={() => edit(`Duplicate ${said}`, duplicateStages(patch, ids))}>Duplicate</Button>
        <Button
          onClick={() => {
            edit(`Remove ${said}`, removeStages(patch, ids));
            onDone();
          }}
        >
          Remove
        </Button>
        <Button onClick={onDone}>Clear selection</Button>
      </Box>
    </Box>
  );
}
