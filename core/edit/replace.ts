import { parsePatch } from '../document/parse';
import { idOf, nameOf, socketAt } from '../document/sockets';
import type { Cable, ModuleDoc, Patch } from '../document/types';
import type { ParamValues } from '../kinds/params';
import { editsBetween } from './between';
import { applyEdits } from './edit';
import type { Edit } from './edit';
import { newModule, shapeIn, shapeOf } from './stages';
import type { Shape } from './stages';

/** Puts another kind in a stage's place. Cables stay: by socket name first, then by what the socket is for. */
export function replaceStage(patch: Patch, id: string, kindName: string): Edit[] {
  const was = shapeIn(patch, id);
  const stage = was && stageInstead(patch, id, kindName, was);
  const will = stage && shapeOf(kindName, stage.params);
  if (!stage || !will) return [];
  const inputs = mapped(
    was.inputs.map((s) => s.name),
    will.inputs.map((s) => s.name),
    (a, b) => was.inputs.find((s) => s.name === a)?.role === will.inputs.find((s) => s.name === b)?.role,
  );
  const outputs = mapped(was.outputs, will.outputs, () => true);
  const renamed = (c: Cable): Cable | null => {
    const from = idOf(c.from) === id ? outputs.get(nameOf(c.from)) : nameOf(c.from);
    const to = idOf(c.to) === id ? inputs.get(nameOf(c.to)) : nameOf(c.to);
    return from && to ? { from: socketAt(idOf(c.from), from), to: socketAt(idOf(c.to), to) } : null;
  };
  const cables = patch.cables.map(renamed).filter((c) => c !== null);
  const replace: Edit = { do: 'replace', module: stage };
  const after = applyEdits(patch, [replace]);
  return [replace, ...editsBetween(after, { ...after, cables })];
}

/** The stage as another kind, with what fits of its settings; null where it is that kind, or cannot be. */
function stageInstead(patch: Patch, id: string, kindName: string, was: Shape): ModuleDoc | null {
  const old = patch.modules.find((m) => m.id === id);
  const will = shapeOf(kindName, was.kind.panel?.starts);
  if (!old || !will || old.kind === kindName) return null;
  const titled = old.label === undefined || old.label.startsWith(was.kind.title);
  const label = titled ? (newModule(patch, kindName).label ?? kindName) : (old.label ?? id);
  const start = will.kind.panel?.starts ?? {};
  const candidates = [{ ...start, ...sharedParams(old.params ?? {}, will) }, start].map((params): ModuleDoc => ({
    id,
    kind: kindName,
    label,
    ...(Object.keys(params).length > 0 && { params }),
  }));
  return candidates.find(canBeRead) ?? null;
}

/** Pairs old sockets with new ones: the same name, then the same role, each taken once. */
function mapped(
  old: readonly string[],
  now: readonly string[],
  fits: (a: string, b: string) => boolean,
): Map<string, string> {
  const pairs = new Map<string, string>(old.filter((n) => now.includes(n)).map((n) => [n, n]));
  for (const name of old) {
    const taken = new Set(pairs.values());
    const free = now.find((n) => !taken.has(n) && fits(name, n));
    if (!pairs.has(name) && free) pairs.set(name, free);
  }
  return pairs;
}

/** What the new kind can take over of the old one's settings: numbers of the same name inside the new limits. */
function sharedParams(old: ParamValues, will: Shape): ParamValues {
  const kept = Object.entries(old).filter(([name, value]) => {
    const spec = will.kind.params[name];
    if (spec?.type !== 'number' || typeof value !== 'number') return false;
    const [min, max] = spec.limits?.(will.params) ?? [spec.min, spec.max];
    return value >= min && value <= max;
  });
  return Object.fromEntries(kept);
}

/** Settings that fit one by one may not fit together: a low limit above a high one. */
const canBeRead = (module: ModuleDoc): boolean =>
  parsePatch({ format: 'fenvo.patch', version: 1, modules: [module] }).ok;
