'use client';
import Box from '@mui/material/Box';
import { memo, useState } from 'react';
import { LIMITS } from '@/core';
import { TextInput } from '@/ui/parts/TextInput';
import type { EditDesk } from '@/ui/session/edit';
import { ink } from '@/ui/theme/tokens';

/** What is to be remembered of the patch: steps, ideas. Kept when the field is left. */
export const NotesField = memo(function NotesField({
  notes,
  edit,
}: {
  readonly notes: string;
  readonly edit: EditDesk;
}) {
  const [text, setText] = useState(notes);
  return (
    <Box sx={{ my: 1 }}>
      <Box sx={{ fontSize: 13, color: ink.softInk, mb: 0.5 }}>notes</Box>
      <TextInput
        label="Notes"
        fullWidth
        lines={[3, 14]}
        placeholder="Steps, ideas, what to try next"
        longest={LIMITS.notes}
        value={text}
        onChange={setText}
        onBlur={() => text !== notes && edit('notes', [{ do: 'put', put: { notes: text } }])}
      />
    </Box>
  );
});
