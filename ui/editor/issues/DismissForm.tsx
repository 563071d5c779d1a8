'use client';
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import { useState } from 'react';
import { TextInput } from '@/ui/parts/TextInput';

/** A finding is dismissed with its reason. */
export function DismissForm({ onKeep }: { readonly onKeep: (reason: string) => void }) {
  const [reason, setReason] = useState('');
  return (
    <Box
      component="form"
      sx={{ display: 'flex', gap: 1, mt: 1 }}
      onSubmit={(e) => {
        e.preventDefault();
        if (reason.trim()) onKeep(reason.trim());
      }}
    >
      <TextInput
        autoFocus
        label="Reason (why this is intended)"
        placeholder="Reason (why this is intended)"
        longest={500}
        value={reason}
        onChange={setReason}
        sx={{ flex: 1 }}
      />
      <Button type="submit" disabled={!reason.trim()}>
        Dismiss
      </Button>
    </Box>
  );
}
