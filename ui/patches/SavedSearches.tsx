'use client';
import Button from '@mui/material/Button';
import Dialog from '@mui/material/Dialog';
import DialogActions from '@mui/material/DialogActions';
import DialogContent from '@mui/material/DialogContent';
import DialogTitle from '@mui/material/DialogTitle';
import Divider from '@mui/material/Divider';
import Menu from '@mui/material/Menu';
import MenuItem from '@mui/material/MenuItem';
import TextField from '@mui/material/TextField';
import { useState } from 'react';
import { useStore } from 'zustand';
import { tell } from '@/ui/parts/messages';
import { setSetting, settings } from '@/ui/parts/settings';
import type { SavedSearch, Wanted } from '@/wire/requests';
import { everything, isNarrowed } from './wanted';

interface Props {
  readonly wanted: Wanted;
  readonly onWanted: (wanted: Wanted) => void;
}

const textOf = (wanted: Wanted): string =>
  JSON.stringify(Object.keys(everything).map((k) => wanted[k as keyof Wanted]));

/** Searches that are kept under names; they go with the library. */
export function SavedSearches({ wanted, onWanted }: Props) {
  const searches = useStore(settings, (s) => s.searches);
  const [anchor, setAnchor] = useState<HTMLElement | null>(null);
  const [naming, setNaming] = useState(false);
  const close = (): void => setAnchor(null);
  const shown = searches.find((s) => textOf(s) === textOf(wanted));
  const narrowed = isNarrowed(wanted);
  if (searches.length === 0 && !narrowed) return null;
  const remove = (gone: SavedSearch): void => {
    setSetting(
      'searches',
      searches.filter((s) => s !== gone),
    );
    tell(`Search “${gone.name}” was deleted.`, { label: 'Undo', run: () => setSetting('searches', searches) });
  };
  return (
    <>
      <Button aria-haspopup="menu" aria-expanded={anchor !== null} onClick={(e) => setAnchor(e.currentTarget)}>
        {shown ? `Saved: ${shown.name}` : 'Saved searches'}
      </Button>
      <Menu anchorEl={anchor} open={anchor !== null} onClose={close} transitionDuration={0}>
        {searches.map((search) => {
          const { name, ...asked } = search;
          return (
            <MenuItem key={name} selected={search === shown} onClick={() => (close(), onWanted(asked))}>
              {name}
            </MenuItem>
          );
        })}
        {searches.length > 0 && <Divider />}
        <MenuItem disabled={!narrowed || Boolean(shown)} onClick={() => (close(), setNaming(true))}>
          Save this search…
        </MenuItem>
        <MenuItem
          disabled={!narrowed}
          onClick={() => (close(), onWanted({ ...everything, by: wanted.by, down: wanted.down }))}
        >
          Show all patches
        </MenuItem>
        {shown && <MenuItem onClick={() => (close(), remove(shown))}>{`Delete “${shown.name}”`}</MenuItem>}
      </Menu>
      {naming && (
        <NameDialog
          taken={searches.map((s) => s.name)}
          suggested={wanted.words.trim().slice(0, LONGEST)}
          onClose={() => setNaming(false)}
          onName={(name) => {
            setNaming(false);
            const kept = [...searches.filter((s) => s.name !== name), { name, ...wanted }];
            setSetting(
              'searches',
              kept.sort((a, b) => a.name.localeCompare(b.name)),
            );
          }}
        />
      )}
    </>
  );
}

const LONGEST = 60;

interface NameProps {
  readonly taken: readonly string[];
  readonly suggested: string;
  readonly onClose: () => void;
  readonly onName: (name: string) => void;
}

function NameDialog({ taken, suggested, onClose, onName }: NameProps) {
  const [name, setName] = useState(suggested);
  const said = name.trim();
  return (
    <Dialog open onClose={onClose} aria-labelledby="search-name-title" fullWidth maxWidth="xs">
      <DialogTitle id="search-name-title">Save search</DialogTitle>
      <DialogContent>
        <TextField
          autoFocus
          fullWidth
          label="Name"
          value={name}
          helperText={taken.includes(said) ? 'Replaces the search of this name.' : ' '}
          slotProps={{ htmlInput: { maxLength: LONGEST } }}
          onChange={(e) => setName(e.target.value)}
          onKeyDown={(e) => e.key === 'Enter' && said !== '' && onName(said)}
          sx={{ mt: 1 }}
        />
      </DialogContent>
      <DialogActions>
        <Button onClick={onClose}>Cancel</Button>
        <Button color="primary" disabled={said === ''} onClick={() => onName(said)}>
          Save
        </Button>
      </DialogActions>
    </Dialog>
  );
}
