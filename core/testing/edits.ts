import { applyEdits } from '../edit/edit';
import { freeId } from '../edit/editSequence';
import type { Edit } from '../edit/edit';
import { parsePatch } from '../document/parse';
import { printPatch } from '../document/print';
import { socketAt } from '../document/sockets';
import { stateOf } from '../document/state';
import type { MacroDoc, Patch } from '../document/types';
import { buildGraph } from '../graph/graph';
import { stream } from '../kinds/random';
import { randomPatch } from './randomPatch';

type Random = () => number;

const pick = <T>(random: Random, list: readonly T[]): T | undefined => list[Math.floor(random() * list.length)];

/** One edit of any kind that an editor makes; null where the patch has nothing to do it to. */
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

/** A macro of any module, as the reader takes it or not, to the first input that there is. */
function randomMacro(fader: string, stage: string, patch: Patch): MacroDoc {
  const end = patch.cables[0]?.to ?? socketAt(stage, 'in');
  return { fader, rows: [{ end, curve: 'straight', stages: [stage] }] };
}

/** One edit of what is only about the editor, or of a name. */
function smallEdit(random: Random, patch: Patch, other: Patch): Edit | null {
  const m = pick(random, patch.modules);
  if (!m) return null;
  const before = pick(random, patch.modules)?.id ?? m.id;
  const at = socketAt(m.id, pick(random, ['out', 'in']) ?? 'out');
  const choices: readonly Edit[] = [
    { do: 'move', id: m.id, before },
    { do: 'label', module: m.id, label: `name ${Math.floor(random() * 9)}` },
    { do: 'lock', module: m.id, param: Object.keys(m.params ?? { amount: 0 })[0] ?? 'amount', locked: random() < 0.6 },
    { do: 'ohms', module: m.id, side: 'inputOhms', socket: 'in', ohms: random() < 0.5 ? 10_000 : null },
    { do: 'bypass', module: m.id, cables: random() < 0.5 ? patch.cables.slice(0, 2) : null },
    { do: 'target', at, target: random() < 0.6 ? { at, quantity: 'volts', low: -1, high: random() } : null },
    { do: 'pin', at, pinned: random() < 0.7 },
    { do: 'control', number: Math.floor(random() * 4), at: random() < 0.6 ? at : null },
    { do: 'dismiss', code: 'clip', at, reason: random() < 0.6 ? 'meant' : null },
    { do: 'macro', fader: m.id, macro: random() < 0.5 ? randomMacro(m.id, before, patch) : null },
    { do: 'variant', name: pick(random, ['a', 'b']) ?? 'a', state: random() < 0.7 ? stateOf(other) : null },
    { do: 'state', state: stateOf(other) },
    { do: 'put', put: { name: `patch ${random()}`, notes: 'low water' } },
    { do: 'tidy' },
  ];
  return pick(random, choices) ?? null;
}

/** Edits of every kind, one on what the other made; what they make need not be a document that can be stored. */
export function randomEdits(seed: number, start: Patch, count: number): Edit[] {
  const random = stream(seed);
  const edits: Edit[] = [];
  let now = start;
  while (edits.length < count) {
    const other = randomPatch(seed + 31 * edits.length + 1, { modules: 4 });
    const edit = random() < 0.5 ? smallEdit(random, now, other) : randomEdit(random, now, other);
    if (!edit) return edits;
    edits.push(edit);
    now = applyEdits(now, [edit]);
  }
  return edits;
}

/** Those of them, one after the other, that leave a document which can be stored: what an editor lets through. */
export function randomValidEdits(seed: number, start: Patch, count: number): Edit[] {
  const valid: Edit[] = [];
  let now = start;
  for (const edit of randomEdits(seed, start, count)) {
    const after = applyEdits(now, [edit]);
    if (!parsePatch(printPatch(after)).ok) continue;
    valid.push(edit);
    now = after;
  }
  return valid;
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
