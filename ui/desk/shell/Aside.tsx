'use client';
import Box from '@mui/material/Box';
import dynamic from 'next/dynamic';
import { memo, useCallback, useEffect } from 'react';
import { useStore } from 'zustand';
import { applyEdits, buildGraph, endsOf, idOf } from '@/core';
import type { Finding } from '@/core';
import { FINDINGS } from '@/ui/parts/places';
import type { DeskStore } from '@/ui/session/desk';
import type { Scene } from '@/ui/session/scene';
import type { Predicted } from '@/ui/session/usePrediction';
import { ink } from '@/ui/theme/tokens';
import { listedEnds } from '../commands/tasks';
import type { Task } from '../commands/tasks';
import { FindingsList } from '../findings/FindingsList';
import type { Ghost } from '../strip/MainStrip';
import { ChosenPanel } from './ChosenPanel';

const SpreadSection = dynamic(() => import('../wanted/SpreadSection').then((m) => m.SpreadSection), { ssr: false });
const WantedSection = dynamic(() => import('../wanted/WantedSection').then((m) => m.WantedSection), { ssr: false });

const TaskPanel = dynamic(() => import('./TaskPanel').then((m) => m.TaskPanel), { ssr: false });
const HistoryPanel = dynamic(() => import('../versions/HistoryPanel').then((m) => m.HistoryPanel), { ssr: false });
const VariantsPanel = dynamic(() => import('../versions/VariantsPanel').then((m) => m.VariantsPanel), { ssr: false });

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

function StageAndFindings({ desk, predicted, begin, setGhost, shown }: Props) {
  const selected = useStore(desk, (s) => s.selected);
  const { edit, select, showEnd } = desk.getState();
  const { patch } = predicted.graph;
  // Of the patch at the click, so that the list of findings is not drawn again with every move of a knob.
  const open = useCallback(
    (at: string): void => {
      const graph = buildGraph(desk.getState().patch);
      if (listedEnds(graph, endsOf(graph), null).includes(at)) showEnd(at);
      select(idOf(at));
    },
    [desk, select, showEnd],
  );
  const first = predicted.full === null ? undefined : predicted.prediction.findings[0]?.at;
  useEffect(() => {
    if (first === undefined || window.location.hash !== `#${FINDINGS}`) return;
    window.history.replaceState(window.history.state, '', window.location.pathname);
    open(first);
  }, [first, open]);
  const preview = useCallback(
    (finding: Finding | null) =>
      setGhost(finding?.cure ? { patch: applyEdits(desk.getState().patch, finding.cure.edits) } : null),
    [desk, setGhost],
  );
  const wanted = <WantedSection desk={desk} predicted={predicted} shown={shown} setGhost={setGhost} />;
  return (
    <>
      {selected === null && wanted}
      <ChosenPanel desk={desk} predicted={predicted} begin={begin} />
      {selected !== null && wanted}
      <SpreadSection desk={desk} shown={shown} />
      <FindingsList
        findings={predicted.prediction.findings}
        dismissed={patch.dismissed}
        modules={patch.modules}
        chosen={selected}
        edit={edit}
        onOpen={open}
        onPreview={preview}
      />
    </>
  );
}
