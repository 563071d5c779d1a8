import Menu from '@mui/material/Menu';
import MenuItem from '@mui/material/MenuItem';
import type { MenuProps } from '@mui/material/Menu';

interface Props {
  readonly anchor: Exclude<MenuProps['anchorEl'], undefined>;
  readonly open: boolean;
  readonly onClose: () => void;
  /** What each entry is called, and does. */
  readonly entries: readonly (readonly [says: string, run: () => void])[];
}

/** The menu of a button: it closes as one of its entries is done. */
export function ActionMenu({ anchor, open, onClose, entries }: Props) {
  return (
    <Menu anchorEl={anchor} open={open} onClose={onClose}>
      {entries.map(([says, run]) => (
        <MenuItem
          key={says}
          onClick={() => {
            onClose();
            run();
          }}
        >
          {says}
        </MenuItem>
      ))}
    </Menu>
  );
}
