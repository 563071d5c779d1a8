'use client';
import { useStore } from 'zustand';
import { later } from '@/ui/parts/later';
import type { DeskStore } from '@/ui/session/desk';
import type { Predicted } from '@/ui/session/usePrediction';
import type { Task } from '../commands/tasks';
import { PatchPanel } from './PatchPanel';

const GroupPanel = later(() => import('../stage/GroupPanel').then((m) => m.GroupPanel));
const StagePanel = later(() => import('../stage/StagePanel').then((m) => m.StagePanel));

function placeOf(predicted: Predicted, id: string): string {
  const frames = predicted.strip?.frames ?? [];
  const index = frames.findIndex((f) => f.module.id === id);
  return index < 0 ? 'Not in the path shown' : `Stage ${index + 1} of ${frames.length}`;
}

interface Props {
  readonly desk: DeskStore;
  readonly predicted: Predicted;
  readonly begin: (task: Task | null) => void;
}

/** The chosen stage, or stages; the patch itself where none is. */
export function ChosenPanel({ desk, predicted, begin }: Props) {
  const selected = useStore(desk, (s) => s.selected);
  const group = useStore(desk, (s) => s.group);
  const { edit, select } = desk.getState();
  const { patch, modules } = predicted.graph;
  const stage = modules.find((m) => m.id === selected);
  if (group.length > 0 && selected !== null)
    return <GroupPanel ids={[selected, ...group]} patch={patch} edit={edit} onDone={() => select(null)} />;
  if (!stage) return <PatchPanel desk={desk} patch={patch} ends={predicted.ends.length} />;
  return (
    <StagePanel
      desk={desk}
      module={stage}
      predicted={predicted}
      place={placeOf(predicted, stage.id)}
      begin={begin}
      onRemoved={() => select(null)}
    />
  );
}
