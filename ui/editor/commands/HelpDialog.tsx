'use client';
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import Checkbox from '@mui/material/Checkbox';
import Dialog from '@mui/material/Dialog';
import DialogActions from '@mui/material/DialogActions';
import DialogContent from '@mui/material/DialogContent';
import DialogTitle from '@mui/material/DialogTitle';
import FormControlLabel from '@mui/material/FormControlLabel';
import { useStore } from 'zustand';
import { glossary } from '@/ui/parts/glossary';
import { setSetting, settings } from '@/ui/parts/settings';
import { fonts, ink } from '@/ui/theme/tokens';
import { isSingle, keysShown } from './commandTable';
import type { Command } from './commandTable';

const OTHERS: readonly (readonly [keys: string, does: string])[] = [
  ['Tab, Enter', 'Move between controls; activate'],
  ['Shift Enter', 'Add a stage to the selection'],
  ['↑ ↓ on a knob', 'Turn (hold Shift for fine steps)'],
  ['Enter or a digit on a knob', 'Type a value: 2:30, 40%, −0.4, 1.5 V'],
  ['L on a knob', 'Lock or unlock'],
  ['Delete on a knob', 'Reset to default'],
  ['+ − ← → 0 in the scope', 'Zoom, pan, show all'],
  ['← → on a cursor', 'move it; with Shift, finely'],
];

/** The keys, and what the words mean. */
export function HelpDialog({ commands, onClose }: { commands: readonly Command[]; onClose: () => void }) {
  const singleKeys = useStore(settings, (s) => s.singleKeys);
  return (
    <Dialog open onClose={onClose} aria-labelledby="help-title" fullWidth maxWidth="md">
      <DialogTitle id="help-title">Shortcuts and glossary</DialogTitle>
      <DialogContent>
        <FormControlLabel
          label="Single-key shortcuts (when no text field is focused)"
          control={<Checkbox checked={singleKeys} onChange={(_, on) => setSetting('singleKeys', on)} />}
          sx={{ mb: 1 }}
        />
        <KeyList commands={commands} singleKeys={singleKeys} />
        <Box component="h3" sx={{ fontSize: 14, m: 0, mb: 0.5 }}>
          Glossary
        </Box>
        <WordList />
      </DialogContent>
      <DialogActions>
        <Button onClick={() => commands.find((c) => c.id === 'guide')?.run()}>Start the tour</Button>
        <Button color="primary" onClick={onClose}>
          Close
        </Button>
      </DialogActions>
    </Dialog>
  );
}

interface KeyProps {
  readonly commands: readonly Command[];
  readonly singleKeys: boolean;
}

function KeyList({ commands, singleKeys }: KeyProps) {
  const keyed = commands.filter((c) => c.keys);
  return (
    <Box sx={{ columnWidth: 300, columnGap: 4, mb: 2 }}>
      {[
        ...keyed.map((c) => [keysShown(c.keys ?? ''), c.title, isSingle(c.keys ?? '')] as const),
        ...OTHERS.map(([k, d]) => [k, d, false] as const),
      ].map(([keys, does, single]) => (
        <Box
          key={`${keys} ${does}`}
          sx={{
            display: 'flex',
            gap: 1.5,
            py: 0.25,
            breakInside: 'avoid',
            opacity: single && !singleKeys ? 0.75 : 1,
          }}
        >
          <Box component="kbd" sx={{ fontFamily: fonts.text, fontWeight: 700, minWidth: 112, color: ink.wanted }}>
            {keys}
          </Box>
          <span>{does}</span>
        </Box>
      ))}
    </Box>
  );
}

function WordList() {
  return (
    <Box component="dl" sx={{ m: 0, columnWidth: 300, columnGap: 4 }}>
      {Object.entries(glossary).map(([word, says]) => (
        <Box key={word} sx={{ breakInside: 'avoid', pb: 0.75 }}>
          <Box component="dt" sx={{ fontWeight: 700 }}>
            {word}
          </Box>
          <Box component="dd" sx={{ m: 0, color: ink.softInk }}>
            {says}
          </Box>
        </Box>
      ))}
    </Box>
  );
}
