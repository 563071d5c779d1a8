'use client';
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import dynamic from 'next/dynamic';
import { memo, useCallback, useEffect } from 'react';
import { useStore } from 'zustand';
import { applyEdits, buildGraph, endsOf, idOf } from '@/core';
import type { Finding, Patch } from '@/core';
import { headingStyle } from '@/ui/parts/fieldStyle';
import { FINDINGS } from '@/ui/parts/places';
import type { DeskStore } from '@/ui/session/desk';
import { ink } from '@/ui/theme/tokens';
import { FindingsList } from '../findings/FindingsList';
import type { Ghost } from '../strip/MainStrip';
import type { Scene } from '@/ui/session/scene';
import { listedEnds, planOf } from '../commands/tasks';
import type { Made, Task } from '../commands/tasks';
import type { Predicted } from '@/ui/session/usePrediction';

const Chooser = dynamic(() => import('@/ui/parts/Chooser').then((m) => m.Chooser), { ssr: false });
const GroupPanel = dynamic(() => import('../stage/GroupPanel').then((m) => m.GroupPanel), { ssr: false });
const HistoryPanel = dynamic(() => import('../versions/HistoryPanel').then((m) => m.HistoryPanel), { ssr: false });
const StagePanel = dynamic(() => import('../stage/StagePanel').then((m) => m.StagePanel), { ssr: false });
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
}

/** At the right: what is being chosen, the variants, the versions, or the chosen stage and the findings. */
export const Aside = memo(function Aside(props: Props) {
  const { desk, scene, setScene, onClose, task } = props;
  return (
    <Box
      component="aside"
      aria-label="Stage and findings"
      sx={{
        width: { md: 312 },
        flexShrink: 0,
        borderLeft: { md: `1px solid ${ink.line}` },
        borderTop: { xs: `1px solid ${ink.line}`, md: 0 },
        background: ink.raised,
        overflowY: 'auto',
        scrollbarGutter: 'stable',
        py: 2,
        pl: 1.75,
        pr: 0.5,
        contain: { md: 'strict' },
      }}
    >
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

const ghostOf = (patch: Patch, made: Made | null): Ghost | null =>
  made && { patch: applyEdits(patch, made.edits), ...(made.show !== undefined && { show: made.show }) };

function TaskPanel({ desk, predicted, task, begin, setGhost }: Props & { readonly task: Task }) {
  const plan = planOf(task, predicted);
  const pick = (key: string): void => {
    const { edit, select, showEnd } = desk.getState();
    const made = plan.make(key);
    begin(null);
    if (!made) return;
    edit(made.label, made.edits);
    if (made.show !== undefined) showEnd(made.show);
    if (made.select !== undefined) select(made.select);
  };
  return (
    <Box component="section" aria-label={plan.title}>
      <Box sx={{ display: 'flex', justifyContent: 'space-between', gap: 1, mb: 1 }}>
        <Box component="h2" sx={{ fontSize: 15, m: 0 }}>
          {plan.title}
        </Box>
        <Button onClick={() => begin(null)}>Cancel</Button>
      </Box>
      <Chooser
        label={plan.title}
        choices={plan.choices}
        onCancel={() => begin(null)}
        onHighlight={(choice) => setGhost(choice && ghostOf(predicted.graph.patch, plan.make(choice.key)))}
        onPick={(choice) => pick(choice.key)}
      />
    </Box>
  );
}

function StageAndFindings({ desk, predicted, begin, setGhost }: Props) {
  const selected = useStore(desk, (s) => s.selected);
  const group = useStore(desk, (s) => s.group);
  const { edit, select, showEnd } = desk.getState();
  const { patch, modules } = predicted.graph;
  const stage = modules.find((m) => m.id === selected);
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
  return (
    <>
      {group.length > 0 && selected !== null ? (
        <GroupPanel ids={[selected, ...group]} patch={patch} edit={edit} onDone={() => select(null)} />
      ) : stage ? (
        <StagePanel
          desk={desk}
          module={stage}
          predicted={predicted}
          place={placeOf(predicted, stage.id)}
          begin={begin}
          onRemoved={() => select(null)}
        />
      ) : (
        <>
          <Box component="h2" sx={{ ...headingStyle, mb: 0.5 }}>
            Stage
          </Box>
          <Box sx={{ color: ink.softInk }}>Choose a frame to set its knobs.</Box>
        </>
      )}
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

function placeOf(predicted: Predicted, id: string): string {
  const frames = predicted.strip?.frames ?? [];
  const index = frames.findIndex((f) => f.module.id === id);
  return index < 0 ? 'Beside the path shown' : `Stage ${index + 1} of ${frames.length}`;
}
