import { saidValue } from '../document/real';
import { idOf, nameOf, socketAt } from '../document/sockets';
import type { Patch } from '../document/types';
import { kindNamed } from '../kinds';
import type { Edit } from './edit';

/** What the pointer of a knob says where the knob really stands at a value; the value itself where nothing was measured. */
export function pointerReader(patch: Patch): (at: string, value: number) => number {
  const byId = new Map(patch.modules.map((m) => [m.id, m]));
  return (at, value) => {
    const m = byId.get(idOf(at));
    const kind = m && kindNamed(m.kind);
    return m?.real && kind ? saidValue(kind, nameOf(at), value, m.real) : value;
  };
}

/** Edits that ask for true settings, as edits of what the pointers say; the very same edits where nothing was measured. */
export function saidEdits(patch: Patch, edits: readonly Edit[]): readonly Edit[] {
  if (!patch.modules.some((m) => m.real)) return edits;
  const said = pointerReader(patch);
  return edits.map((e): Edit => {
    if (e.do !== 'set' || typeof e.value !== 'number') return e;
    const value = said(socketAt(e.module, e.param), e.value);
    return value === e.value ? e : { ...e, value: Number(value.toPrecision(12)) };
  });
}
