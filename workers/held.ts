import { applyEdits, buildGraph } from '../core';
import type { Graph } from '../core';
import type { PatchStep } from '../wire/core';

/** The patch that the page and this worker speak of, and its graph. */
let held: { readonly version: number; readonly graph: Graph } | null = null;

/** Takes a step of the page along; the graph of what is held already is the same. */
export function take(step: PatchStep): Graph {
  // A whole patch is another line's first: its versions are its own.
  if (!('patch' in step) && held?.version === step.version) return held.graph;
  if ('patch' in step) held = { version: step.version, graph: buildGraph(step.patch) };
  else if (held?.version === step.on)
    held = { version: step.version, graph: buildGraph(applyEdits(held.graph.patch, step.edits)) };
  else throw new Error(`version ${step.on} of the patch is not held here`);
  return held.graph;
}

export function letGo(): void {
  held = null;
}
