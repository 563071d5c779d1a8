import { describe, expect, it } from 'vitest';
import { parsePatch } from '../document/parse';
import { printPatch } from '../document/print';
import type { Patch, Target } from '../document/types';
import { TARGET_SHAPES } from '../document/targets';
import { applyEdits } from '../edit/edit';
import { buildGraph } from '../graph/graph';
import { socketAt } from '../document/sockets';
import { stream } from '../kinds/random';
import { randomPatch } from '../testing/randomPatch';
import { standingsOf } from './problem/runner';
import { solve } from '../testing/unhurried';
import { editsOf } from './types';

const PATCHES = Number(process.env.FENVO_ROUNDS ?? 50);

/** Something to want at any socket of a patch, whether it makes sense there or not. */
function randomTarget(patch: Patch, seed: number): Target {
  const random = stream(seed ^ 0x7a96);
  const pick = <T>(list: readonly T[]): T => list[Math.floor(random() * list.length)] as T;
  const graph = buildGraph(patch);
  const ends = graph.modules.flatMap((m) =>
    (m.kind.ends ?? [])
      .filter((e) => e.exists?.(m.params) ?? true)
      .map((e) => ({ at: socketAt(m.id, e.socket), quantity: e.quantity })),
  );
  const sockets = graph.modules.flatMap((m) => [...m.inputs, ...m.outputs].map((s) => s.socket));
  const end = ends.length > 0 && random() < 0.7 ? pick(ends) : { at: pick(sockets), quantity: 'volts' };
  const [a, b] = [20 * random() - 10, 20 * random() - 10];
  const [low, high] = [Math.min(a, b), Math.max(a, b)];
  const row = graph.modules.find((m) => Array.isArray(m.params.steps));
  const all: readonly Target[] = [
    { ...end, low, high },
    { ...end, want: 'within', low, high: random() < 0.5 ? null : high },
    { ...end, want: 'span', span: Math.abs(a), centre: random() < 0.5 ? null : b },
    { ...end, want: 'mean', value: a },
    { at: end.at, want: 'opposite', to: pick(sockets) },
    { at: end.at, want: 'same', to: pick(sockets) },
    { at: end.at, want: 'duty', percent: 100 * random() },
    { at: end.at, want: 'fall', db: 6, seconds: 0.02 },
    { at: end.at, want: 'dip', db: 6 },
    { at: end.at, want: 'arrive', seconds: 0.02 },
    { at: end.at, want: 'like', shape: pick(TARGET_SHAPES) },
    ...(row ? [{ at: end.at, want: 'steps', of: row.id, steps: [0] } as const] : []),
  ];
  return pick(all);
}

describe('random patches with random targets', () => {
  it(`are answered, and every answer holds when its document is read anew, of ${PATCHES}`, () => {
    const broken: string[] = [];
    let feasible = 0;
    for (let seed = 0; seed < PATCHES; seed++) {
      const patch = randomPatch(900_000 + seed, { modules: 2 + (seed % 4), duration: 0.05, loops: seed % 4 === 0 });
      const target = randomTarget(patch, seed);
      const wanted = { ...patch, targets: [target] };
      const answer = solve(wanted, { plain: true, seconds: Infinity });
      const [best] = answer.solutions;
      if (answer.feasible) feasible++;
      if (answer.feasible !== (best !== undefined)) broken.push(`${seed}: feasible without an answer`);
      const shown = best ?? answer.nearest;
      if (!shown) continue;
      const document = JSON.parse(JSON.stringify(printPatch(applyEdits(wanted, editsOf(shown))))) as unknown;
      const read = parsePatch(document);
      if (!read.ok) broken.push(`${seed}: ${read.errors[0]?.path} ${read.errors[0]?.message}`);
      else {
        const [miss] = standingsOf(read.value, { closeness: { within: 1e-4, boxes: 16_384 } });
        const claimed = shown.targets[0]!.error;
        if (
          Math.abs((miss?.error ?? 0) - claimed) > 1e-6 * (1 + Math.abs(claimed)) &&
          Number.isFinite(miss?.error ?? NaN)
        )
          broken.push(`${seed}: ${JSON.stringify(target)} says ${claimed}, is ${miss?.error}`);
      }
    }
    console.log(`${feasible} of ${PATCHES} random targets can be met`);
    expect(broken).toEqual([]);
  });
});
