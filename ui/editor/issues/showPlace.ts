import { buildGraph, endsOf, idOf } from '@/core';
import type { DeskStore } from '@/ui/session/desk';
import { listedEnds } from '../commands/tasks';

/** Shows where an issue is: its path, and its stage chosen. */
export function showPlace(desk: DeskStore, at: string): void {
  const { patch, showEnd, select } = desk.getState();
  const graph = buildGraph(patch);
  if (listedEnds(graph, endsOf(graph), null).includes(at)) showEnd(at);
  select(idOf(at));
}
