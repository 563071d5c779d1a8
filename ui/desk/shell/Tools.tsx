'use client';
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import IconButton from '@mui/material/IconButton';
import Menu from '@mui/material/Menu';
import MenuItem from '@mui/material/MenuItem';
import { useRouter } from 'next/navigation';
import { memo, useRef, useState } from 'react';
import { printPatch } from '@/core';
import { downloadPatch } from '@/ui/parts/files';
import { MenuIcon } from '@/ui/parts/icons';
import type { DeskStore } from '@/ui/session/desk';
import type { Scene } from '@/ui/session/scene';

interface Props {
  readonly desk: DeskStore;
  readonly setScene: (scene: Scene) => void;
}

interface Tool {
  readonly name: string;
  readonly keys?: string;
  run(): void;
}

/** What is opened from the head: side by side where there is room, in a menu where there is not. */
export const Tools = memo(function Tools({ desk, setScene }: Props) {
  const button = useRef<HTMLButtonElement>(null);
  const [open, setOpen] = useState(false);
  const router = useRouter();
  const download = (): void => {
    const { patch } = desk.getState();
    downloadPatch(patch.name, printPatch(patch));
  };
  const tools: readonly Tool[] = [
    { name: 'Search', keys: 'Control+K', run: () => setScene({ show: 'palette' }) },
    { name: 'Variants', run: () => setScene({ show: 'variants' }) },
    { name: 'History', run: () => setScene({ show: 'history' }) },
    { name: 'Import', run: () => setScene({ show: 'import' }) },
    { name: 'Export', run: download },
    { name: 'Patch sheet', run: () => router.push(`/patches/${desk.getState().id}/sheet`) },
    { name: 'Help', run: () => setScene({ show: 'help' }) },
  ];
  return (
    <>
      <Box sx={{ display: { xs: 'none', md: 'flex' }, gap: 1 }}>
        {tools.map(({ name, keys, run }) => (
          <Button key={name} onClick={run} aria-keyshortcuts={keys}>
            {name}
          </Button>
        ))}
      </Box>
      <IconButton
        ref={button}
        aria-label="More"
        aria-haspopup="menu"
        onClick={() => setOpen(true)}
        sx={{ display: { md: 'none' } }}
      >
        <MenuIcon />
      </IconButton>
      <Menu anchorEl={() => button.current} open={open} onClose={() => setOpen(false)}>
        {tools.map(({ name, run }) => (
          <MenuItem
            key={name}
            onClick={() => {
              setOpen(false);
              run();
            }}
          >
            {name}
          </MenuItem>
        ))}
      </Menu>
    </>
  );
});
