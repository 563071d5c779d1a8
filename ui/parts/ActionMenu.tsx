import Menu from '@mui/material/Menu';
import MenuItem from '@mui/material/MenuItem';
import type { MenuProps } from '@mui/material/Menu';

interface Props {
  readonly anchor: Exclude<MenuProps['anchorEl'], undefined>;
  readonly open: boolean;
  readonly onClose: () => void;
  /** What each entry is called, and does; what it means, on hover, where that needs a word. */
  readonly entries: readonly (readonly [says: string, run: () => void, means?: string])[];
}

/** The menu of a button: it closes as one of its entries is done. */
export function ActionMenu({ anchor, open, onClose, entries }: Props) {
  return (
    <Menu anchorEl={anchor} open={open} onClose={onClose}>
      {entries.map(([says, run, means]) => (
        <MenuItem
          key={says}
          title={means}
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
