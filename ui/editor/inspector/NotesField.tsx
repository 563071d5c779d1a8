'use client';
import Box from '@mui/material/Box';
import { memo } from 'react';
import { LIMITS } from '@/core';
import { TextInput } from '@/ui/parts/TextInput';
import { useTyped } from '@/ui/parts/useTyped';
import type { EditDesk } from '@/ui/session/edit';
import { ink } from '@/ui/theme/tokens';

/** What is to be remembered of the patch: steps, ideas. Kept as it is typed. */
export const NotesField = memo(function NotesField({
  notes,
  edit,
}: {
  readonly notes: string;
  readonly edit: EditDesk;
}) {
  const { field } = useTyped(notes, (text) => {
    if (text !== notes) edit('Edit notes', [{ do: 'put', put: { notes: text } }]);
    return null;
  });
  return (
    <Box sx={{ my: 1 }}>
      <Box sx={{ fontSize: 13, color: ink.softInk, mb: 0.5 }}>Notes</Box>
      <TextInput
        {...field}
        label="Notes"
        fullWidth
        lines={[3, 14]}
        placeholder="Steps, ideas, what to try next"
        longest={LIMITS.notes}
        // Enter begins a line.
        onKeyDown={(e) => e.key !== 'Enter' && field.onKeyDown(e)}
      />
    </Box>
  );
});
