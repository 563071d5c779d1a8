'use client';
import { useCallback } from 'react';
import { useStore } from 'zustand';
import { buildGraph, endsOf, idOf } from '@/core';
import type { DeskStore } from '@/ui/session/desk';
import { openIssues } from '@/ui/session/inspector';
import type { Predicted } from '@/ui/session/usePrediction';
import { listedEnds } from '../commands/tasks';
import { FindingsList } from '../findings/FindingsList';

interface Props {
  readonly desk: DeskStore;
  readonly predicted: Predicted;
}

/** Shows where an issue is: its path, and its stage chosen. */
export function showPlace(desk: DeskStore, at: string): void {
  const { patch, showEnd, select } = desk.getState();
  const graph = buildGraph(patch);
  if (listedEnds(graph, endsOf(graph), null).includes(at)) showEnd(at);
  select(idOf(at));
}

/** All issues of the patch, in the place of the tab's panel. */
export function IssuesPanel({ desk, predicted }: Props) {
  const selected = useStore(desk, (s) => s.selected);
  const { patch } = predicted.graph;
  const open = useCallback(
    (at: string): void => {
      showPlace(desk, at);
      openIssues();
    },
    [desk],
  );
  return (
    <FindingsList
      desk={desk}
      findings={predicted.prediction.findings}
      pending={predicted.full === null}
      dismissed={patch.dismissed}
      modules={patch.modules}
      chosen={selected}
      onOpen={open}
    />
  );
}
