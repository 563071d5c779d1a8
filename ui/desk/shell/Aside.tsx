'use client';
import Box from '@mui/material/Box';
import dynamic from 'next/dynamic';
import { patiently } from '@/ui/parts/patiently';
import { memo } from 'react';
import type { DeskStore } from '@/ui/session/desk';
import type { Scene } from '@/ui/session/scene';
import type { Predicted } from '@/ui/session/usePrediction';
import { ink } from '@/ui/theme/tokens';
import type { Task } from '../commands/tasks';
import type { Ghost } from '../strip/MainStrip';

const StageAndFindings = dynamic(
  patiently(() => import('./StageAndFindings').then((m) => m.StageAndFindings)),
  { ssr: false },
);
const TaskPanel = dynamic(
  patiently(() => import('./TaskPanel').then((m) => m.TaskPanel)),
  { ssr: false },
);
const HistoryPanel = dynamic(
  patiently(() => import('../versions/HistoryPanel').then((m) => m.HistoryPanel)),
  { ssr: false },
);
const VariantsPanel = dynamic(
  patiently(() => import('../versions/VariantsPanel').then((m) => m.VariantsPanel)),
  { ssr: false },
);

interface Props {
  readonly desk: DeskStore;
  readonly predicted: Predicted;
  readonly scene: Scene;
  readonly setScene: (scene: Scene) => void;
  readonly onClose: () => void;
  readonly task: Task | null;
  readonly begin: (task: Task | null) => void;
  readonly setGhost: (ghost: Ghost | null) => void;
  /** The end whose path is shown. */
  readonly shown: string | null;
}

const asideStyle = {
  order: { xs: 4, md: 0 },
  width: { md: 312 },
  flexShrink: 0,
  borderLeft: { md: `1px solid ${ink.line}` },
  borderTop: { xs: `1px solid ${ink.line}`, md: 0 },
  background: ink.raised,
  overflowY: 'auto',
  scrollbarGutter: { md: 'stable' },
  py: 2,
  pl: 1.75,
  pr: { xs: 1.75, md: 0.5 },
  contain: { md: 'strict' },
} as const;

/** At the right: what is being chosen, the variants, the versions, or the chosen stage and the findings. */
export const Aside = memo(function Aside(props: Props) {
  const { desk, scene, setScene, onClose, task } = props;
  return (
    <Box component="aside" aria-label="Stage and findings" sx={asideStyle}>
      {task ? (
        <TaskPanel {...props} task={task} />
      ) : scene.show === 'variants' ? (
        <VariantsPanel desk={desk} onClose={onClose} onCompare={setScene} />
      ) : scene.show === 'history' ? (
        <HistoryPanel desk={desk} onClose={onClose} onCompare={setScene} />
      ) : (
        <StageAndFindings {...props} />
      )}
    </Box>
  );
});
