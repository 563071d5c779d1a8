import { outputEdits } from '@/core';
import { tellFault } from '@/ui/parts/messages';
import type { DeskStore } from '@/ui/session/desk';

/** Leads the sound out; says so where there is none. */
export function addOutput(desk: DeskStore): void {
  const { edit, patch } = desk.getState();
  const edits = outputEdits(patch);
  if (edits.length > 0) edit('Add an output', edits);
  else tellFault('Nothing in the patch makes a sound yet. Add an oscillator or another sound source first.');
}
