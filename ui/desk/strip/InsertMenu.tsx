import ListItemText from '@mui/material/ListItemText';
import Menu from '@mui/material/Menu';
import MenuItem from '@mui/material/MenuItem';
import { allKinds } from '@/core';

/** Stages that one signal passes through, by what they do. */
export const insertable = allKinds.filter((k) => k.room === 'between' && k.name !== 'junction');

const capital = (text: string): string => text.charAt(0).toUpperCase() + text.slice(1);

export function InsertMenu({
  anchor,
  onClose,
  onPick,
}: {
  anchor: HTMLElement | null;
  onClose: () => void;
  onPick: (kind: string) => void;
}) {
  return (
    <Menu
      anchorEl={anchor}
      open={anchor !== null}
      onClose={onClose}
      slotProps={{ list: { 'aria-label': 'What shall the stage do?' } }}
    >
      {insertable.map((kind) => (
        <MenuItem key={kind.name} dense onClick={() => onPick(kind.name)} data-kind={kind.name}>
          <ListItemText primary={capital(kind.does)} secondary={kind.title} />
        </MenuItem>
      ))}
    </Menu>
  );
}
