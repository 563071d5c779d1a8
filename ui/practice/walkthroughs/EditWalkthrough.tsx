import Alert from '@mui/material/Alert';
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import Dialog from '@mui/material/Dialog';
import DialogActions from '@mui/material/DialogActions';
import DialogContent from '@mui/material/DialogContent';
import DialogTitle from '@mui/material/DialogTitle';
import IconButton from '@mui/material/IconButton';
import { useState } from 'react';
import { printWalkthrough } from '@/core/practice';
import type { Walkthrough } from '@/core/practice';
import { DeleteIcon } from '@/ui/parts/icons';
import { TextInput } from '@/ui/parts/TextInput';
import { ink } from '@/ui/theme/tokens';
import type { StoredWalkthrough } from '@/wire/practice';
import { readWalkthrough, walkthroughApi } from '@/ui/parts/walkthroughApi';

interface Props {
  readonly stored: StoredWalkthrough;
  readonly onClose: () => void;
  readonly onSaved: () => void;
}

/** The words of a walkthrough of one’s own: its title, what one learns by it, and a sentence for every step. */
export function EditWalkthrough({ stored, onClose, onSaved }: Props) {
  const [walkthrough, setWalkthrough] = useState<Walkthrough>(() => readWalkthrough(stored.walkthrough));
  const [fault, setFault] = useState<string | null>(null);
  const put = (part: Partial<Walkthrough>): void => setWalkthrough({ ...walkthrough, ...part });
  const { title, about, steps } = walkthrough;
  const save = (): void =>
    void walkthroughApi
      .save(stored.id, stored.revision, printWalkthrough(walkthrough))
      .then(onSaved)
      .catch((error: unknown) => setFault(error instanceof Error ? error.message : String(error)));
  return (
    <Dialog open onClose={onClose} maxWidth="md" fullWidth aria-labelledby="edit-walkthrough">
      <DialogTitle id="edit-walkthrough">Text of the walkthrough</DialogTitle>
      <DialogContent sx={{ display: 'flex', flexDirection: 'column', gap: 1 }}>
        <TextInput
          label="Title"
          placeholder="Title"
          fullWidth
          value={title}
          longest={200}
          onChange={(t) => put({ title: t })}
        />
        <TextInput
          label="What one learns by it"
          placeholder="What one learns by it"
          fullWidth
          value={about}
          longest={400}
          onChange={(a) => put({ about: a })}
        />
        {steps.map((step, i) => (
          <Box key={i} sx={{ display: 'flex', gap: 1, alignItems: 'flex-start' }}>
            <Box sx={{ width: 24, pt: 1, color: ink.softInk, textAlign: 'right' }}>{i + 1}</Box>
            <Box sx={{ flex: 1 }}>
              <TextInput
                label={`Step ${i + 1}`}
                fullWidth
                lines={[2, 6]}
                longest={600}
                value={step.text}
                onChange={(text) => put({ steps: steps.map((s, k) => (k === i ? { ...s, text } : s)) })}
              />
            </Box>
            <IconButton
              aria-label={`Remove step ${i + 1}`}
              disabled={steps.length === 1}
              onClick={() => put({ steps: steps.filter((_, k) => k !== i) })}
            >
              <DeleteIcon fontSize="small" />
            </IconButton>
          </Box>
        ))}
        {fault !== null && <Alert severity="error">{fault}</Alert>}
      </DialogContent>
      <DialogActions>
        <Button onClick={onClose}>Cancel</Button>
        <Button variant="contained" color="primary" onClick={save}>
          Save
        </Button>
      </DialogActions>
    </Dialog>
  );
}
