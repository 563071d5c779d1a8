'use client';
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import Dialog from '@mui/material/Dialog';
import DialogActions from '@mui/material/DialogActions';
import DialogContent from '@mui/material/DialogContent';
import DialogTitle from '@mui/material/DialogTitle';
import { useMemo, useState } from 'react';
import { aliasesOf, allKinds, catalogue } from '@/core';
import type { Rack } from '@/core';
import { counted } from '@/ui/parts/counted';
import { TextInput } from '@/ui/parts/TextInput';
import { ink } from '@/ui/theme/tokens';
import { addByHand, addOfType } from './edits';
import type { AddedModule } from './edits';

interface Props {
  readonly rack: Rack;
  readonly onAdded: (made: AddedModule) => void;
  readonly onClose: () => void;
}

interface Offer {
  /** What else finds it. */
  readonly aliases: readonly string[];
  readonly key: string;
  readonly title: string;
  readonly says: string;
  add(rack: Rack): AddedModule | null;
}

/** The catalogue's types, and every kind as a module by hand. */
function offers(): readonly { readonly title: string; readonly list: readonly Offer[] }[] {
  const types = catalogue.map(({ title, types: list }) => ({
    title,
    list: list.map((t): Offer => ({
      key: t.type,
      title: t.name,
      says: `${t.says}; ${t.hp} HP, ${counted(t.channels.length, 'channel')}`,
      aliases: aliasesOf(t),
      add: (rack) => addOfType(rack, t.type),
    })),
  }));
  const kinds = allKinds
    .filter((k) => k.electrical?.unracked !== 'always')
    .map((k): Offer => ({
      key: `by hand ${k.name}`,
      title: k.title,
      says: `custom, one channel: ${k.does}`,
      aliases: k.aliases ?? [],
      add: (rack) => addByHand(rack, k.name),
    }));
  return [...types, { title: 'Custom modules', list: kinds }];
}

/** What can be put into a rack, found by what it does; several can be added one after the other. */
export function CatalogueDialog({ rack, onAdded, onClose }: Props) {
  const [words, setWords] = useState('');
  const [last, setLast] = useState('');
  const all = useMemo(() => offers(), []);
  const groups = useMemo(() => {
    const wanted = words.toLowerCase().split(/\s+/).filter(Boolean);
    return all
      .map(({ title, list }) => ({
        title,
        list: list.filter((o) =>
          wanted.every((w) => `${title} ${o.title} ${o.says} ${o.aliases.join(' ')}`.toLowerCase().includes(w)),
        ),
      }))
      .filter((g) => g.list.length > 0);
  }, [all, words]);
  const add = (offer: Offer): void => {
    const made = offer.add(rack);
    if (!made) return;
    onAdded(made);
    setLast(`Added ${offer.title}.`);
  };
  return (
    <Dialog open onClose={onClose} aria-labelledby="catalogue-title" maxWidth="md" fullWidth>
      <DialogTitle id="catalogue-title">Add module</DialogTitle>
      <DialogContent>
        <TextInput
          type="search"
          label="Search the catalogue"
          placeholder="Search: mixer, offset, LFO, VCA…"
          autoFocus
          fullWidth
          value={words}
          onChange={setWords}
        />
        {groups.map((g) => (
          <Box key={g.title} component="section" aria-label={g.title} sx={{ mt: 1.5 }}>
            <Box component="h3" sx={{ fontSize: 14, m: 0, color: ink.softInk }}>
              {g.title}
            </Box>
            {g.list.map((o) => (
              <Box
                key={o.key}
                data-type={o.key}
                sx={{ display: 'flex', alignItems: 'center', gap: 1.5, py: 0.5, borderTop: `1px solid ${ink.line}` }}
              >
                <Box sx={{ flex: 1, minWidth: 0 }}>
                  <Box component="span" sx={{ fontWeight: 700 }}>
                    {o.title}
                  </Box>
                  <Box sx={{ fontSize: 13, color: ink.softInk }}>{o.says}</Box>
                </Box>
                <Button onClick={() => add(o)} aria-label={`Add ${o.title}`}>
                  Add
                </Button>
              </Box>
            ))}
          </Box>
        ))}
        {groups.length === 0 && <p>No matches.</p>}
      </DialogContent>
      <DialogActions>
        <Box role="status" sx={{ flex: 1, pl: 2, color: ink.good }}>
          {last}
        </Box>
        <Button onClick={onClose}>Done</Button>
      </DialogActions>
    </Dialog>
  );
}
