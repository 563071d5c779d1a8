import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import type { ReactNode } from 'react';
import { AddIcon, BookIcon, FlagIcon } from '@/ui/parts/icons';
import { ink } from '@/ui/theme/tokens';

interface Props {
  readonly onGoal: () => void;
  readonly onRecipes: () => void;
  readonly onNew: () => void;
  readonly file: ReactNode;
}

/** The doors: from a goal, from a recipe, from nothing, from a file. */
export function EmptyShelf({ onGoal, onRecipes, onNew, file }: Props) {
  return (
    <Box sx={{ py: 5 }}>
      <h2>No patches yet</h2>
      <Box sx={{ display: 'grid', gap: 2, gridTemplateColumns: { xs: '1fr', md: 'repeat(2, 1fr)' } }}>
        <Door says="Choose what to control, the range you want and the source. Fenvo suggests working patches.">
          <Button color="primary" startIcon={<FlagIcon />} onClick={onGoal}>
            From a goal
          </Button>
        </Door>
        <Door says="Open a small working patch, listen to it and follow the note on what to turn.">
          <Button startIcon={<BookIcon />} onClick={onRecipes}>
            Recipes
          </Button>
        </Door>
        <Door says="Start from scratch: destination first, then a source, then the stages between them.">
          <Button startIcon={<AddIcon />} onClick={onNew}>
            New patch
          </Button>
        </Door>
        <Door says="Import a .fenvo.json file, or a zip of patches and their recordings.">{file}</Door>
      </Box>
    </Box>
  );
}

function Door({ says, children }: { readonly says: string; readonly children: ReactNode }) {
  return (
    <Box sx={{ p: 2, border: `1px solid ${ink.line}`, borderRadius: 1, background: ink.raised }}>
      {children}
      <Box sx={{ mt: 1.5, color: ink.softInk }}>{says}</Box>
    </Box>
  );
}
