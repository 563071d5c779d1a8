import { BoundsEngine } from '../bounds/bounds';
import type { Patch } from '../document/types';
import { applyEdits } from '../edit/edit';
import type { Edit } from '../edit/edit';
import { inverseOf, isSame } from '../edit/between';
import { buildGraph } from '../graph/graph';
import type { Graph } from '../graph/graph';
import { LiveEngine } from '../live/engine';
import { graphAt } from '../live/player';
import { Ranged } from '../live/ranged';
import { editedPatches, randomEdits, randomValidEdits } from './edits';
import { randomPatch } from './randomPatch';

/** Samples a second of the live runs, and how many follow each edit. */
const [RATE, SAMPLES, BLOCK] = [8000, 400, 32];
/** What is heard may leave its bound by no more than rounding, volts. */
const SLACK = 1e-9;

/** What is wrong with a random list of edits, or null: undone as a whole or one by one, the document is as it was. */
export function undoFault(seed: number, count: number): string | null {
  const start = randomPatch(seed, { loops: true });
  const edits = randomEdits(seed, start, count);
  if (!isSame(applyEdits(applyEdits(start, edits), inverseOf(start, edits)), start))
    return `undone, ${edits.length} edits leave another document`;
  let now = start;
  for (const edit of edits) {
    const after = applyEdits(now, [edit]);
    if (!isSame(applyEdits(after, inverseOf(now, [edit])), now)) return `undone, “${edit.do}” leaves another document`;
    now = after;
  }
  return null;
}

/** Bounds that are kept may differ from those worked out anew by no more than the order of a sum, of their size. */
const ROUNDING = 1e-12;

/** Whether two answers are the same but for rounding, whatever they are made of. */
function isAlike(a: unknown, b: unknown): boolean {
  if (typeof a === 'number' && typeof b === 'number')
    return Object.is(a, b) || Math.abs(a - b) <= ROUNDING * Math.max(1, Math.abs(b));
  if (typeof a !== 'object' || typeof b !== 'object' || a === null || b === null) return a === b;
  const [x, y] = [Object.entries(a), Object.entries(b)];
  return x.length === y.length && x.every(([key, value]) => isAlike(value, (b as Record<string, unknown>)[key]));
}

/** What is wrong with bounds that are kept from edit to edit, or null: they are those of a run that knows nothing. */
export function keptFault(seed: number, steps: number): string | null {
  const engine = new BoundsEngine();
  let step = 0;
  for (const patch of editedPatches(seed, steps)) {
    const graph = buildGraph(patch);
    const [kept, afresh] = [engine.run(graph), new BoundsEngine().run(graph)];
    if (kept.size !== afresh.size) return `after step ${step}: ${kept.size} modules for ${afresh.size}`;
    for (const [id, wanted] of afresh)
      if (!isAlike(kept.get(id), wanted))
        return `after step ${step}, ${id}: ${JSON.stringify(kept.get(id))} is kept, ${JSON.stringify(wanted)} is right`;
    step++;
  }
  return null;
}

/**
 * Plays a patch through edits.
 *
 * @returns every sample that lies beyond what is known of it then, and how many modules were known, over all blocks.
 */
export function playedBeyond(
  patch: Patch,
  edits: readonly (readonly Edit[])[],
): { readonly found: string[]; readonly known: number } {
  const engine = new LiveEngine(graphAt(patch, RATE), { block: BLOCK });
  const ranged = new Ranged(patch);
  const bounds = new BoundsEngine();
  let [now, known] = [patch, 0];
  const found: string[] = [];
  for (const edit of [[], ...edits]) {
    now = applyEdits(now, edit);
    engine.edit(graphAt(now, RATE));
    ranged.edit(now);
    const { unknown } = ranged;
    const ranges = bounds.run(buildGraph(ranged.patch));
    const { modules } = buildGraph(now);
    for (let k = 0; k < SAMPLES; k += BLOCK) {
      engine.advance(BLOCK);
      for (const m of modules) {
        if (unknown.has(m.id)) continue;
        known++;
        m.outputs.forEach((o, i) => {
          const [low, high] = ranges.get(m.id)?.outputs[i] ?? [0, 0];
          const worst = engine.buffer(o.socket).find((v) => !(v >= low - SLACK && v <= high + SLACK));
          if (worst !== undefined)
            found.push(`${o.socket}: ${worst} beyond ${low} … ${high} after ${JSON.stringify(edit)}`);
        });
      }
    }
  }
  return { found, known };
}

/** Outputs that tell nothing of what was before: neither their module nor one that feeds it has a memory or a clock. */
function outputsOfNow({ modules, groups }: Graph): string[] {
  const ofNow = new Set<number>();
  for (const { modules: members, loop } of groups)
    for (const index of members) {
      const m = modules[index];
      if (!m || loop || m.hands.length > 0 || m.kind.kernel) continue;
      const isConnected = (name: string): boolean => m.inputs.some((s) => s.spec.name === name && s.connected);
      const isFedNow = m.inputs.every(({ driver }) => driver.type === 'volts' || ofNow.has(driver.module));
      if (isFedNow && !m.kind.memory(m.params, isConnected)) ofNow.add(index);
    }
  return [...ofNow].flatMap((index) => (modules[index]?.outputs ?? []).map((o) => o.socket));
}

/**
 * What is wrong with a live run through random edits, or null: all that is heard lies within what is known of it, and
 * what remembers nothing is, once its glides are over, what an engine gives that never knew the patch before.
 */
export function liveFault(seed: number, count: number): string | null {
  const start = randomPatch(seed, { modules: 3 + (seed % 12) });
  const edits = randomValidEdits(seed + 1, start, count);
  const { found } = playedBeyond(
    start,
    edits.map((e) => [e]),
  );
  if (found[0] !== undefined) return found[0];
  const engine = new LiveEngine(graphAt(start, RATE), { block: BLOCK });
  let now = start;
  for (const edit of edits) {
    now = applyEdits(now, [edit]);
    const graph = graphAt(now, RATE);
    engine.edit(graph);
    for (let k = 0; k < SAMPLES; k += BLOCK) engine.advance(BLOCK);
    const afresh = new LiveEngine(graph, { block: BLOCK });
    afresh.advance(BLOCK);
    for (const socket of outputsOfNow(graph)) {
      const [is, wanted] = [engine, afresh].map((e) => e.buffer(socket)[BLOCK - 1] ?? NaN) as [number, number];
      if (!(Math.abs(is - wanted) <= SLACK * Math.max(1, Math.abs(wanted))))
        return `${socket}: ${is} after ${JSON.stringify(edit)}, ${wanted} from a fresh engine`;
    }
  }
  return null;
}
