'use client';
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import Dialog from '@mui/material/Dialog';
import DialogActions from '@mui/material/DialogActions';
import DialogContent from '@mui/material/DialogContent';
import DialogTitle from '@mui/material/DialogTitle';
import { useState } from 'react';
import { kindNamed, searchWords } from '@/core';
import { recipes, RECIPE_GROUPS } from '@/core/recipes';
import type { Recipe } from '@/core/recipes';
import { TextInput } from '@/ui/parts/TextInput';
import { ink } from '@/ui/theme/tokens';
import type { Document } from '@/wire/patches';

interface Props {
  readonly onOpen: (document: Document) => void;
  readonly onClose: () => void;
}

/** By its own words, and by what its modules go by. */
const fits = ({ title, turn, document }: Recipe, words: string): boolean => {
  const kinds = new Set((document.modules as readonly { readonly kind: string }[]).map((m) => m.kind));
  const text = [title, turn, ...[...kinds].flatMap((name) => searchWords(kindNamed(name)))].join(' ').toLowerCase();
  return words
    .toLowerCase()
    .split(/\s+/)
    .every((word) => text.includes(word));
};

/** Small patches that work at once, by what they do. */
export function RecipesDialog({ onOpen, onClose }: Props) {
  const [words, setWords] = useState('');
  const found = recipes.filter((r) => fits(r, words));
  return (
    <Dialog open onClose={onClose} aria-labelledby="recipes-title" maxWidth="md" fullWidth>
      <DialogTitle id="recipes-title">Recipes</DialogTitle>
      <DialogContent>
        <TextInput
          type="search"
          label="Search recipes"
          placeholder="Search recipes"
          value={words}
          onChange={setWords}
          sx={{ width: 260, mb: 1 }}
        />
        {found.length === 0 && <p>No matching recipes.</p>}
        {RECIPE_GROUPS.filter((group) => found.some((r) => r.group === group)).map((group) => (
          <Box key={group} component="section" aria-label={group} sx={{ mt: 1.5 }}>
            <Box component="h2" sx={{ fontSize: 15, m: 0, color: ink.softInk }}>
              {group}
            </Box>
            {found
              .filter((r) => r.group === group)
              .map((r) => (
                <Row key={r.id} recipe={r} onOpen={onOpen} />
              ))}
          </Box>
        ))}
      </DialogContent>
      <DialogActions>
        <Button onClick={onClose}>Close</Button>
      </DialogActions>
    </Dialog>
  );
}

function Row({ recipe, onOpen }: { readonly recipe: Recipe; readonly onOpen: Props['onOpen'] }) {
  const { id, title, turn, document } = recipe;
  return (
    <Box
      data-recipe={id}
      sx={{ display: 'flex', gap: 2, alignItems: 'center', borderTop: `1px solid ${ink.line}`, py: 1 }}
    >
      <Box sx={{ flex: 1, minWidth: 0 }}>
        <Box sx={{ fontWeight: 700 }}>{title}</Box>
        <Box sx={{ fontSize: 13, color: ink.softInk }}>{turn}</Box>
      </Box>
      <Button aria-label={`Open ${title}`} onClick={() => onOpen(document)} sx={{ flexShrink: 0 }}>
        Open
      </Button>
    </Box>
  );
}
