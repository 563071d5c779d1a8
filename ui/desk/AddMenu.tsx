'use client';
import Button from '@mui/material/Button';
import ListItemText from '@mui/material/ListItemText';
import Menu from '@mui/material/Menu';
import MenuItem from '@mui/material/MenuItem';
import { useState } from 'react';
import { allKinds } from '@/core';
import type { Patch } from '@/core';
import { addModule } from './edits';
import type { Edit } from './edit';

interface Props {
  readonly patch: Patch;
  readonly edit: Edit;
  readonly onAdded: (id: string) => void;
}

/** Adds any module, unplugged; its inputs are then chosen in the stage panel. */
export function AddMenu({ patch, edit, onAdded }: Props) {
  const [anchor, setAnchor] = useState<HTMLElement | null>(null);
  const add = (kind: string): void => {
    const added = addModule(patch, kind);
    edit(`add ${added.id}`, () => added.patch);
    onAdded(added.id);
    setAnchor(null);
  };
  return (
    <>
      <Button aria-haspopup="menu" onClick={(e) => setAnchor(e.currentTarget)}>
        Add a module
      </Button>
      <Menu
        anchorEl={anchor}
        open={anchor !== null}
        onClose={() => setAnchor(null)}
        slotProps={{ list: { 'aria-label': 'Modules' } }}
      >
        {allKinds.map((kind) => (
          <MenuItem key={kind.name} dense onClick={() => add(kind.name)} data-kind={kind.name}>
            <ListItemText primary={kind.title} secondary={kind.does} />
          </MenuItem>
        ))}
      </Menu>
    </>
  );
}
