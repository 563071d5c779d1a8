'use client';
import Button from '@mui/material/Button';
import Dialog from '@mui/material/Dialog';
import DialogActions from '@mui/material/DialogActions';
import DialogContent from '@mui/material/DialogContent';
import DialogTitle from '@mui/material/DialogTitle';
import TextField from '@mui/material/TextField';
import { useState } from 'react';
import { LIMITS } from '@/core';

export function RenameDialog({
  name,
  onClose,
  onRename,
}: {
  name: string;
  onClose: () => void;
  onRename: (name: string) => void;
}) {
  const [text, setText] = useState(name);
  const fits = text.trim() !== '';
  return (
    <Dialog open onClose={onClose} aria-labelledby="rename-title">
      <form
        onSubmit={(e) => {
          e.preventDefault();
          if (fits) onRename(text.trim());
        }}
      >
        <DialogTitle id="rename-title">Rename the patch</DialogTitle>
        <DialogContent>
          <TextField
            autoFocus
            margin="dense"
            label="Name"
            value={text}
            onChange={(e) => setText(e.target.value)}
            slotProps={{ htmlInput: { maxLength: LIMITS.name } }}
          />
        </DialogContent>
        <DialogActions>
          <Button onClick={onClose}>Cancel</Button>
          <Button type="submit" color="primary" disabled={!fits}>
            Rename
          </Button>
        </DialogActions>
      </form>
    </Dialog>
  );
}
