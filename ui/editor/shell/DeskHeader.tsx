'use client';
import Box from '@mui/material/Box';
import { memo } from 'react';
import { useStore } from 'zustand';
import { SafeLink } from '@/ui/parts/SafeLink';
import { SkipLinks } from '@/ui/parts/SkipLinks';
import { SchemeButton } from '@/ui/parts/SchemeButton';
import type { DeskStore } from '@/ui/session/desk';
import type { Scene } from '@/ui/session/scene';
import { ink } from '@/ui/theme/tokens';
import { SaveLine } from './SaveLine';
import { Tools } from './Tools';
import { PatchName } from '../inspector/PatchName';
import { PlayButton } from '../live/PlayButton';
import { UndoRedo } from './UndoRedo';

interface Props {
  readonly desk: DeskStore;
  readonly others: boolean;
  readonly setScene: (scene: Scene) => void;
}

const headStyle = {
  minHeight: 48,
  display: 'flex',
  alignItems: 'center',
  gap: { xs: 0.5, md: 1 },
  px: { xs: 1, md: 2 },
  py: 0.5,
  borderBottom: `1px solid ${ink.line}`,
} as const;

/** Where one is, whether it is saved, and what can be opened. */
export const DeskHeader = memo(function DeskHeader({ desk, others, setScene }: Props) {
  const name = useStore(desk, (s) => s.patch.name);
  const { edit } = desk.getState();
  return (
    <Box component="header" data-no-print sx={headStyle}>
      <SkipLinks
        links={[
          ['#path', 'Skip to the path'],
          ['#inspector', 'Skip to the inspector'],
        ]}
      />
      <Box sx={{ fontSize: 18, fontWeight: 700, flexShrink: 0, display: { xs: 'none', md: 'block' } }}>Fenvo</Box>
      <Box component={SafeLink} href="/" sx={{ color: ink.softInk, flexShrink: 0, whiteSpace: 'nowrap' }}>
        Patches
      </Box>
      <span>/</span>
      <Box sx={{ minWidth: 0, flexShrink: 1, overflow: 'hidden' }}>
        <PatchName label="Name of the patch" name={name} size={15} edit={edit} />
      </Box>
      <SaveLine desk={desk} others={others} />
      <Box sx={{ flex: 1 }} />
      <PlayButton />
      <UndoRedo desk={desk} />
      <Tools desk={desk} setScene={setScene} />
      <SchemeButton />
    </Box>
  );
});
