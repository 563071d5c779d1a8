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
  ['Tab, Enter', 'go from part to part; choose'],
  ['Shift Enter', 'choose a frame beside what is chosen'],
  ['↑ ↓ on a knob', 'turn it; with Shift, finely'],
  ['Enter or a digit on a knob', 'type 2:30, 40%, -0.4 or 1.5V'],
  ['L on a knob', 'lock it, or free it'],
  ['Delete on a knob', 'back to its default'],
  ['+ − ← → 0 in the scope', 'zoom, move, see all'],
  ['← → on a cursor', 'move it; with Shift, finely'],
];

/** The keys, and what the words mean. */
export function HelpDialog({ commands, onClose }: { commands: readonly Command[]; onClose: () => void }) {
  const singleKeys = useStore(settings, (s) => s.singleKeys);
  return (
    <Dialog open onClose={onClose} aria-labelledby="help-title" fullWidth maxWidth="md">
      <DialogTitle id="help-title">Keys and words</DialogTitle>
      <DialogContent>
        <FormControlLabel
          label="Single keys work when no field has the focus"
          control={<Checkbox checked={singleKeys} onChange={(_, on) => setSetting('singleKeys', on)} />}
          sx={{ mb: 1 }}
        />
        <KeyList commands={commands} singleKeys={singleKeys} />
        <Box component="h3" sx={{ fontSize: 14, m: 0, mb: 0.5 }}>
          Words
        </Box>
        <WordList />
      </DialogContent>
      <DialogActions>
        <Button onClick={() => commands.find((c) => c.id === 'guide')?.run()}>Show the first steps</Button>
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
