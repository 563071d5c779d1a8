'use client';
import Box from '@mui/material/Box';
import { memo } from 'react';
import { later } from '@/ui/parts/later';
import type { Scene } from '@/ui/session/scene';
import { ink } from '@/ui/theme/tokens';
import type { Task } from '../commands/tasks';
import type { StageProps } from './StageAndFindings';

const StageAndFindings = later(() => import('./StageAndFindings').then((m) => m.StageAndFindings));
const TaskPanel = later(() => import('./TaskPanel').then((m) => m.TaskPanel));
const HistoryPanel = later(() => import('../versions/HistoryPanel').then((m) => m.HistoryPanel));
const VariantsPanel = later(() => import('../versions/VariantsPanel').then((m) => m.VariantsPanel));

interface Props extends StageProps {
  readonly scene: Scene;
  readonly setScene: (scene: Scene) => void;
  readonly onClose: () => void;
  readonly task: Task | null;
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
    <Box component="aside" aria-label="Inspector" sx={asideStyle}>
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
