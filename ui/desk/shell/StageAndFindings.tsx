'use client';
import { useCallback, useEffect } from 'react';
import { useStore } from 'zustand';
import { applyEdits, buildGraph, endsOf, idOf } from '@/core';
import type { Finding } from '@/core';
import { FINDINGS } from '@/ui/parts/places';
import type { DeskStore } from '@/ui/session/desk';
import type { Predicted } from '@/ui/session/usePrediction';
import { listedEnds } from '../commands/tasks';
import type { Task } from '../commands/tasks';
import { FindingsList } from '../findings/FindingsList';
import type { Ghost } from '../strip/MainStrip';
import { SpreadSection } from '../wanted/SpreadSection';
import { WantedSection } from '../wanted/WantedSection';
import { ChosenPanel } from './ChosenPanel';

export interface StageProps {
  readonly desk: DeskStore;
  readonly predicted: Predicted;
  readonly begin: (task: Task | null) => void;
  readonly setGhost: (ghost: Ghost | null) => void;
  /** The end whose path is shown. */
  readonly shown: string | null;
}

/** The chosen stage or the patch, what is wanted, and the findings: read as one, so that nothing of it pushes the rest. */
export function StageAndFindings({ desk, predicted, begin, setGhost, shown }: StageProps) {
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
