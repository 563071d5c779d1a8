'use client';
import { useCallback } from 'react';
import { useStore } from 'zustand';
import type { DeskStore } from '@/ui/session/desk';
import { openIssues } from '@/ui/session/inspector';
import type { Predicted } from '@/ui/session/usePrediction';
import { showPlace } from '../issues/showPlace';
import { FindingsList } from '../issues/FindingsList';

interface Props {
  readonly desk: DeskStore;
  readonly predicted: Predicted;
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
