import { buildGraph, earsOffered, testVoice, usualEars } from '@/core';
import type { Ears, Graph, Patch } from '@/core';

/** A choice of what is listened to. */
export interface Choice {
  readonly key: string;
  readonly says: string;
}

/** What is listened to where nobody chose: the way out, else a test voice at the shown end. */
export const USUAL = '';
export const VOICE = 'voice';

/** What is played, and by which ears. */
export interface Listened {
  readonly patch: Patch;
  readonly ears: Ears;
  /** What a test voice does; null where the patch itself is heard. */
  readonly voice: string | null;
}

const keyOf = (ears: Ears): string => `${ears.left} ${ears.right}`;

export function choicesFor(graph: Graph, end: string | null): Choice[] {
  const usual = usualEars(graph);
  const voice = end !== null && testVoice(graph, end);
  return [
    ...(usual ? [{ key: USUAL, says: usual.says }] : []),
    ...(voice ? [{ key: VOICE, says: 'a test voice' }] : []),
    ...earsOffered(graph)
      .filter((e) => usual === null || keyOf(e) !== keyOf(usual))
      .map((e) => ({ key: keyOf(e), says: e.says })),
  ];
}

/** What a choice comes to; null where nothing of the patch can be heard. */
export function listenedTo(patch: Patch, end: string | null, choice: string): Listened | null {
  const graph = buildGraph(patch);
  const chosen = earsOffered(graph).find((e) => keyOf(e) === choice);
  if (chosen) return { patch, ears: chosen, voice: null };
  const usual = usualEars(graph);
  if (usual && choice !== VOICE) return { patch, ears: usual, voice: null };
  const voice = end === null ? null : testVoice(graph, end);
  if (voice) return { patch: voice.patch, ears: voice.ears, voice: voice.says };
  return usual ? { patch, ears: usual, voice: null } : null;
}
