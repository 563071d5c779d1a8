import { completeParams, existing } from '../document/params';
import type { Patch } from '../document/types';
import { kindNamed } from '../kinds';
import type { ParamValue } from '../kinds/params';
import type { Sheet } from '../sheet/types';

/** What stands at a rack: settings by module, and cables. */
export interface Stood {
  readonly params: ReadonlyMap<string, Readonly<Record<string, ParamValue>>>;
  readonly cables: readonly string[];
}

/** Does a sheet's steps at a rack where every knob stands anywhere, and tells what stands there after. */
export function followed(sheet: Sheet): Stood {
  const params = new Map<string, Record<string, ParamValue>>();
  const cables: string[] = [];
  for (const step of sheet.steps) {
    if (step.do === 'plug') cables.push(`${step.cable.from} > ${step.cable.to}`);
    if (step.do !== 'set') continue;
    const entries = [...step.knobs, ...step.setup].map(({ param, value }) => [param, value] as const);
    params.set(step.module, Object.fromEntries(entries));
  }
  return { params, cables: cables.toSorted() };
}

/** The same of the patch itself: every setting that exists. */
export function standing(patch: Patch): Stood {
  const params = patch.modules.flatMap((m) => {
    const kind = kindNamed(m.kind);
    if (!kind || Object.keys(kind.params).length === 0) return [];
    const all = completeParams(kind, m.params, patch.settings.bpm);
    return [[m.id, existing(kind, all)] as const];
  });
  return { params: new Map(params), cables: patch.cables.map((c) => `${c.from} > ${c.to}`).toSorted() };
}

/** What of a sheet's order is wrong, or null: done twice, plugged before it was set, or measured too early. */
export function orderFault(patch: Patch, sheet: Sheet, exempt: (socket: string) => boolean): string | null {
  const ids = sheet.steps.map((s) => s.id);
  if (new Set(ids).size !== ids.length) return 'a step is there twice';
  const set = new Set<string>();
  const measured = new Set<string>();
  const plugged = new Set<string>();
  const settable = new Set(standing(patch).params.keys());
  const used = new Set<string>();
  for (const step of sheet.steps) {
    if (step.do === 'set') {
      const touched = [...plugged].some((to) => to.split('.')[0] === step.module);
      if (touched || [...used].some((from) => from.split('.')[0] === step.module))
        return `${step.id} comes after something was plugged there`;
      set.add(step.module);
    }
    if (step.do === 'measure') {
      const id = step.expect.at.split('.')[0];
      const missing = patch.cables.find((c) => c.to.split('.')[0] === id && !plugged.has(c.to));
      if (missing) return `${step.id} comes before ${missing.to} is plugged`;
      measured.add(step.expect.at);
    }
    if (step.do === 'plug') {
      const { from, to } = step.cable;
      for (const id of [from, to].map((s) => s.split('.')[0] ?? ''))
        if (settable.has(id) && !set.has(id)) return `${step.id} comes before ${id} is set`;
      if (!measured.has(from) && !exempt(from)) return `${step.id} comes before ${from} is measured`;
      if (step.split !== used.has(from)) return `${step.id} does not say whether it splits`;
      used.add(from);
      plugged.add(to);
    }
  }
  return null;
}
