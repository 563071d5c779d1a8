'use client';
import Box from '@mui/material/Box';
import { useStore } from 'zustand';
import { channelTitle, inSentence } from '@/core';
import { later } from '@/ui/parts/later';
import { channels } from '@/ui/session/channels';
import type { DeskStore } from '@/ui/session/desk';
import type { Predicted } from '@/ui/session/usePrediction';
import { ink } from '@/ui/theme/tokens';
import type { Task } from '../commands/tasks';

const GroupPanel = later(() => import('../stage/GroupPanel').then((m) => m.GroupPanel));
const StagePanel = later(() => import('../stage/StagePanel').then((m) => m.StagePanel));

function placeOf(predicted: Predicted, id: string): string {
  const frames = predicted.strip?.frames ?? [];
  const index = frames.findIndex((f) => f.module.id === id);
  return index < 0 ? 'not in the path shown' : `stage ${index + 1} of ${frames.length}`;
}

interface Props {
  readonly desk: DeskStore;
  readonly predicted: Predicted;
  readonly begin: (task: Task | null) => void;
}

/** The chosen stage, or stages. */
export function StageTab({ desk, predicted, begin }: Props) {
  const selected = useStore(desk, (s) => s.selected);
  const group = useStore(desk, (s) => s.group);
  const rack = useStore(channels, (s) => s.rack);
  const { edit, select } = desk.getState();
  const { patch, modules } = predicted.graph;
  const stage = modules.find((m) => m.id === selected);
  if (group.length > 0 && selected !== null)
    return <GroupPanel ids={[selected, ...group]} patch={patch} edit={edit} onDone={() => select(null)} />;
  if (!stage)
    return (
      <Box sx={{ color: ink.softInk }}>
        Select a stage in the path to see its knobs and connections. Press [ and ] to move between stages.
      </Box>
    );
  const seat = patch.modules.find((m) => m.id === stage.id)?.rack;
  const place = [
    inSentence(placeOf(predicted, stage.id)),
    ...(seat === undefined ? [] : [channelTitle(rack, seat)]),
  ].join(' · ');
  return (
    <StagePanel
      desk={desk}
      module={stage}
      predicted={predicted}
      place={place}
      begin={begin}
      onRemoved={() => select(null)}
    />
  );
}
