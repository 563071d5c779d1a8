import { outputEdits, applyEdits, parsePatch, printPatch } from '@/core';
import { api } from '@/ui/parts/api';

/** Leads a stored patch's sound out, as its next revision; throws where nothing sounds, or the server refuses. */
export async function addOutput(id: string): Promise<void> {
  const stored = await api.get(id);
  const read = parsePatch(stored.patch);
  if (!read.ok) throw new Error('The patch could not be read. Open it in the editor.');
  const edits = outputEdits(read.value);
  if (edits.length === 0)
    throw new Error('Nothing in the patch makes a sound yet. Add an oscillator or another sound source in the editor.');
  await api.save(id, stored.revision, printPatch(applyEdits(read.value, edits)));
}
