import { kindNamed } from '../kinds';
import { inEachState } from './migrate';
import { completeParams } from './params';
import { quantitiesAt } from './quantities';
import { isObject } from './reader';
import type { Fields } from './reader';
import { idOf, nameOf } from './sockets';
import type { ParamValues } from '../kinds/params';

/** The quantities of a socket in a document that has not been read yet; none where it is not there. */
function knownAt(modules: readonly unknown[], at: string): string[] {
  const m = modules.find((x): x is Fields => isObject(x) && x.id === idOf(at));
  const kind = typeof m?.kind === 'string' ? kindNamed(m.kind) : undefined;
  if (!kind) return [];
  const given = isObject(m?.params) ? (m.params as ParamValues) : {};
  return quantitiesAt(kind, completeParams(kind, given), nameOf(at));
}

function stateWith<T>(state: T): T {
  if (!isObject(state) || !Array.isArray(state.targets) || !Array.isArray(state.modules)) return state;
  const modules = state.modules as unknown[];
  const targets = (state.targets as unknown[]).map((t) => {
    if (!isObject(t) || typeof t.at !== 'string' || typeof t.quantity !== 'string') return t;
    const [meant, ...others] = knownAt(modules, t.at);
    return meant === undefined || [meant, ...others].includes(t.quantity) ? t : { ...t, quantity: meant };
  });
  return targets.every((t, i) => t === (state.targets as unknown[])[i]) ? state : { ...state, targets };
}

/**
 * A document that this program stored while it took any word for a target's quantity, with the quantity that the word
 * was read as: the destination's own, else volts. The same object where nothing is to be done.
 */
export function withKnownQuantities<T>(doc: T): T {
  return inEachState(doc, stateWith);
}
