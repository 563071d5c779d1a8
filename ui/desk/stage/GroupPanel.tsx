'use client';
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import { placeName } from '@/core';
import type { ModuleDoc } from '@/core';
import type { Edit } from '../edit';
import { bypassStages, duplicateStages, removeStages } from '../stages';

interface Props {
  readonly ids: readonly string[];
  readonly modules: readonly ModuleDoc[];
  readonly edit: Edit;
  readonly onDone: () => void;
}

/** Several chosen stages: what is done is done to all, as one edit. */
export function GroupPanel({ ids, modules, edit, onDone }: Props) {
  const said = `${ids.length} stages`;
  return (
    <Box component="section" aria-label="Chosen stages">
      <Box component="h2" sx={{ fontSize: 15, m: 0 }}>{`${said} chosen`}</Box>
      <Box component="ul" sx={{ pl: 2.5, my: 1 }}>
        {ids.map((id) => (
          <li key={id}>{placeName(modules, id)}</li>
        ))}
      </Box>
      <Box sx={{ display: 'flex', gap: 1, flexWrap: 'wrap' }}>
        <Button onClick={() => edit(`bypass ${said}`, (p) => bypassStages(p, ids))}>Bypass</Button>
        <Button onClick={() => edit(`duplicate ${said}`, (p) => duplicateStages(p, ids))}>Duplicate</Button>
        <Button
          onClick={() => {
            edit(`remove ${said}`, (p) => removeStages(p, ids));
            onDone();
          }}
        >
          Remove
        </Button>
        <Button onClick={onDone}>Let go</Button>
      </Box>
    </Box>
  );
}
