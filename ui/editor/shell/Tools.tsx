'use client';
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import IconButton from '@mui/material/IconButton';
import { useRouter } from 'next/navigation';
import { memo, useRef, useState } from 'react';
import type { ComponentType } from 'react';
import { printPatch } from '@/core';
import { ActionMenu } from '@/ui/parts/ActionMenu';
import { downloadBundle, downloadGraph, downloadPatch, downloadTables } from '@/ui/parts/files';
import {
  DownloadIcon,
  FileIcon,
  HelpIcon,
  HistoryIcon,
  LayersIcon,
  MenuIcon,
  SearchIcon,
  SheetIcon,
} from '@/ui/parts/icons';
import { tellFault } from '@/ui/parts/messages';
import { setSetting } from '@/ui/parts/settings';
import type { DeskStore } from '@/ui/session/desk';
import { openSound } from '@/ui/session/hearing';
import type { Scene } from '@/ui/session/scene';
import { startRecording } from '@/ui/session/walkRecording';

interface Props {
  readonly desk: DeskStore;
  readonly setScene: (scene: Scene) => void;
}

interface Tool {
  readonly name: string;
  readonly icon: ComponentType<{ readonly fontSize?: 'small' }>;
  readonly keys?: string;
  /** The words stay where icons stand for the others. */
  readonly first?: boolean;
  readonly menu?: readonly (readonly [name: string, run: () => void])[];
  run?(): void;
}

function useTools({ desk, setScene }: Props): readonly Tool[] {
  const router = useRouter();
  const download = (): void => {
    const { patch } = desk.getState();
    downloadPatch(patch.name, printPatch(patch));
  };
  const bundle = (): void => {
    const { patch } = desk.getState();
    downloadBundle(patch.name, [printPatch(patch)]).catch(tellFault);
  };
  const as = (download: typeof downloadGraph) => (): void => void download(desk.getState().patch).catch(tellFault);
  const sheet = (): void => router.push(`/patches/${desk.getState().id}/sheet`);
  return [
    { name: 'Search', icon: SearchIcon, keys: 'Control+K', run: () => setScene({ show: 'palette' }) },
    { name: 'Variants', icon: LayersIcon, run: () => setScene({ show: 'variants' }) },
    { name: 'History', icon: HistoryIcon, run: () => setScene({ show: 'history' }) },
    { name: 'Import', icon: FileIcon, run: () => setScene({ show: 'import' }) },
    {
      name: 'Export',
      icon: DownloadIcon,
      menu: [
        ['Patch file', download],
        ['Patch with recordings (zip)', bundle],
        ['Graph (DOT)', as(downloadGraph)],
        ['Tables (CSV)', as(downloadTables)],
        ['Audio (WAV)…', () => openSound('export')],
        ['Patch sheet (PDF, CSV, HTML)…', sheet],
      ],
    },
    { name: 'Patch sheet', icon: SheetIcon, first: true, run: sheet },
    {
      name: 'Help',
      icon: HelpIcon,
      menu: [
        ['Shortcuts and glossary', () => setScene({ show: 'help' })],
        ['Start the tour', () => setSetting('guide', 'on')],
        ['Walkthroughs', () => router.push('/practice/walkthroughs')],
        ['Practise this patch', () => router.push(`/practice/patch/${desk.getState().id}`)],
        ['Record a walkthrough', () => startRecording(desk)],
      ],
    },
  ];
}

const wordStyle = { display: { md: 'none', lg: 'inline' } } as const;

/** What is opened from the head: words where there is room, icons where there is less, a menu on a phone. */
export const Tools = memo(function Tools(props: Props) {
  const tools = useTools(props);
  return (
    <>
      <Box sx={{ display: { xs: 'none', md: 'flex' }, gap: { md: 0.5, lg: 1 } }}>
        {tools.map((tool) => (
          <ToolButton key={tool.name} {...tool} />
        ))}
      </Box>
      <ToolMenu tools={tools} />
    </>
  );
});

function ToolButton({ name, icon: Icon, keys, first = false, menu, run }: Tool) {
  const button = useRef<HTMLButtonElement>(null);
  const [open, setOpen] = useState(false);
  return (
    <>
      <Button
        ref={button}
        aria-label={name}
        title={name}
        aria-keyshortcuts={keys}
        aria-haspopup={menu ? 'menu' : undefined}
        color={first ? 'primary' : 'inherit'}
        onClick={() => (menu ? setOpen(true) : run?.())}
        sx={{ whiteSpace: 'nowrap', ...(first && { borderColor: 'primary.main' }) }}
      >
        <Box component="span" sx={{ display: { md: first ? 'none' : 'inline-flex', lg: 'none' } }}>
          <Icon fontSize="small" />
        </Box>
        <Box component="span" sx={first ? undefined : wordStyle}>
          {name}
        </Box>
      </Button>
      {menu && <ActionMenu anchor={() => button.current} open={open} onClose={() => setOpen(false)} entries={menu} />}
    </>
  );
}

/** All of it in one menu, on a phone. */
function ToolMenu({ tools }: { readonly tools: readonly Tool[] }) {
  const button = useRef<HTMLButtonElement>(null);
  const [open, setOpen] = useState(false);
  const entries = tools.flatMap(({ name, menu, run }): (readonly [string, () => void])[] =>
    menu ? menu.map(([says, does]) => [`${name}: ${says}`, does] as const) : [[name, () => run?.()]],
  );
  return (
    <>
      <IconButton
        ref={button}
        aria-label="More"
        aria-haspopup="menu"
        onClick={() => setOpen(true)}
        sx={{ display: { md: 'none' } }}
      >
        <MenuIcon />
      </IconButton>
      <ActionMenu anchor={() => button.current} open={open} onClose={() => setOpen(false)} entries={entries} />
    </>
  );
}
