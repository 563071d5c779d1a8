import { applyEdits, freeId } from '../document/edits';
import type { Edit } from '../document/edits';
import { parsePatch } from '../document/parse';
import { printPatch } from '../document/print';
import type { Patch } from '../document/types';
import { buildGraph } from '../graph/graph';
import { stream } from '../kinds/random';
import { randomPatch } from './randomPatch';

type Random = () => number;

const pick = <T>(random: Random, list: readonly T[]): T | undefined => list[Math.floor(random() * list.length)];

/** One edit of any kind that a desk makes; null where the patch has nothing to do it to. */
function randomEdit(random: Random, patch: Patch, other: Patch): Edit | null {
  const { modules } = buildGraph(patch);
  const inputs = modules.flatMap((m) => m.inputs.map((s) => s.socket));
  const outputs = modules.flatMap((m) => m.outputs.map((o) => o.socket));
  const [m, spare] = [pick(random, patch.modules), pick(random, other.modules)];
  const [to, from] = [pick(random, inputs), pick(random, outputs)];
  const chance = random();
  if (chance < 0.15) return m ? { do: 'remove', id: m.id } : null;
  if (chance < 0.3 && spare) {
    const at = { id: freeId(patch, 'new'), kind: spare.kind, ...(spare.params && { params: spare.params }) };
    return { do: 'add', module: at, ...(m && random() < 0.7 && { before: m.id }) };
  }
  if (chance < 0.4 && m && spare) return { do: 'replace', module: { ...spare, id: m.id } };
  if (chance < 0.65 && to && from) return { do: 'plug', cable: { from, to } };
  if (chance < 0.75) return to ? { do: 'unplug', to } : null;
  if (chance < 0.85) {
    if (!to || !from) return null;
    return { do: 'normal', to, normal: random() < 0.5 ? { to, volts: 10 * random() - 5 } : { to, from } };
  }
  const [name, value] = pick(random, Object.entries(spare?.params ?? {})) ?? [];
  const fits = patch.modules.filter((x) => x.kind === spare?.kind);
  const at = pick(random, fits);
  if (at && name !== undefined) return { do: 'set', module: at.id, param: name, value };
  return { do: 'settings', settings: { railVolts: 5 + 10 * random() } };
}

/** The patches along a random list of edits, each one that a document may hold, undone now and then. */
export function* editedPatches(seed: number, steps: number): Generator<Patch> {
  const random = stream(seed);
  const start = randomPatch(seed, { loops: seed % 3 !== 1, modules: 4 + (seed % 14) });
  const past: Patch[] = [start];
  for (let step = 0; step < steps; step++) {
    const now = past.at(-1) as Patch;
    if (random() < 0.2 && past.length > 1) past.pop();
    else {
      const edit = randomEdit(random, now, randomPatch(seed + 7919 * (step + 1), { modules: 5 }));
      const next = edit && parsePatch(printPatch(applyEdits(now, [edit])));
      if (!next?.ok) continue;
      past.push(applyEdits(now, edit ? [edit] : []));
    }
    yield past.at(-1) as Patch;
  }
}
