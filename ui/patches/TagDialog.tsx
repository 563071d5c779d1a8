'use client';
import Button from '@mui/material/Button';
import Dialog from '@mui/material/Dialog';
import DialogActions from '@mui/material/DialogActions';
import DialogContent from '@mui/material/DialogContent';
import DialogTitle from '@mui/material/DialogTitle';
import { useState } from 'react';
import { TagsInput } from '@/ui/parts/TagsInput';

interface Props {
  readonly said: string;
  readonly offered: readonly string[];
  readonly onDone: (tags: readonly string[]) => void;
  readonly onClose: () => void;
}

/** Tags that several patches get beside those that they have. */
export function TagDialog({ said, offered, onDone, onClose }: Props) {
  const [tags, setTags] = useState<readonly string[]>([]);
  return (
    <Dialog open onClose={onClose} aria-labelledby="tag-title" fullWidth maxWidth="xs">
      <DialogTitle id="tag-title">{`Tags for ${said}`}</DialogTitle>
      <DialogContent>
        <TagsInput tags={tags} offered={offered} onChange={setTags} />
      </DialogContent>
      <DialogActions>
        <Button onClick={onClose}>Cancel</Button>
        <Button color="primary" disabled={tags.length === 0} onClick={() => onDone(tags)}>
          Add
        </Button>
      </DialogActions>
    </Dialog>
  );
}
