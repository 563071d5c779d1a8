import type { Strip } from '../graph/strip';
import { idOf, nameOf, socketAt } from '../document/sockets';
import type { ModuleDoc, Patch } from '../document/types';
import type { Range } from '../law/affine';
import type { Edit } from './edit';
import { freeId } from './editSequence';
import { connect, newModule, plugBefore, shapeOf } from './stages';
import { EditSequence } from './editSequence';

/** Copies of stages, with what feeds them; between themselves they are joined as the first ones are. */
function copyStages(patch: Patch, ids: readonly string[]): { work: EditSequence; names: ReadonlyMap<string, string> } {
  const names = new Map<string, string>();
  const work = new EditSequence(patch);
  for (const id of ids) {
    const stage = patch.modules.find((m) => m.id === id);
    if (!stage) continue;
    const copy = freeId(work.patch, id.replace(/\d+$/, ''));
    names.set(id, copy);
    const { rack: _own, ...doc } = stage;
    const label = copyLabel(work.patch.modules, stage.label ?? id);
    work.do({ do: 'add', module: { ...doc, id: copy, label } });
  }
  const here = (socket: string): string => socketAt(names.get(idOf(socket)) ?? idOf(socket), nameOf(socket));
  for (const c of patch.cables) if (names.has(idOf(c.to))) work.do(connect(here(c.to), here(c.from)));
  for (const n of patch.normals) {
    if (!names.has(idOf(n.to))) continue;
    const to = here(n.to);
    work.do({ do: 'normal', to, normal: 'from' in n ? { ...n, from: here(n.from), to } : { ...n, to } });
  }
  return { work, names };
}

function copyLabel(modules: readonly ModuleDoc[], label: string): string {
  const base = label.replace(/ \d+$/, '').slice(0, 70);
  for (let n = 2; ; n++) if (!modules.some((m) => m.label === `${base} ${n}`)) return `${base} ${n}`;
}

/** Copies of loose stages, beside the first. */
export const duplicateStages = (patch: Patch, ids: readonly string[]): readonly Edit[] =>
  copyStages(patch, ids).work.edits;

/**
 * The stages of a strip once more, from the same source to another end.
 *
 * @param bound what arrives at the first end, volts; mirrored, the copy gives low + high − that.
 */
export function duplicateChain(
  patch: Patch,
  strip: Strip,
  to: string,
  mirrored: boolean,
  bound: Range,
): readonly Edit[] {
  const stages = strip.frames.slice(0, -1).filter((f, i) => i > 0 || f.module.kind.category === 'between');
  const last = strip.frames.at(-2)?.output;
  if (!last) return [];
  const { work, names } = copyStages(
    patch,
    stages.map((f) => f.module.id),
  );
  const from = socketAt(names.get(idOf(last)) ?? idOf(last), nameOf(last));
  work.do(connect(to, from));
  if (mirrored) mirror(work, from, to, bound);
  return work.edits;
}

/** Mirrors what arrives at a socket within its range: at its last scale and offset, or by a new one. */
function mirror(work: EditSequence, from: string, to: string, [low, high]: Range): void {
  const last = work.patch.modules.find((m) => m.id === idOf(from));
  const own = last ? shapeOf(last.kind, last.params) : null;
  const mirrored = own?.kind.panel?.mirrored?.(own.params, low + high);
  if (last && mirrored) {
    for (const [param, value] of Object.entries(mirrored)) work.do({ do: 'set', module: last.id, param, value });
    return;
  }
  const lift = low + high;
  const reach = Math.max(5, Math.abs(lift));
  const params = { amount: -1, volts: lift, ...(reach > 5 && { lowVolts: -12, highVolts: 12 }) };
  const added = { ...newModule(work.patch, 'offset', params), label: 'Mirror' };
  work.do({ do: 'add', module: added, before: idOf(to) });
  work.do(...plugBefore(work.patch, added.id, to));
}
