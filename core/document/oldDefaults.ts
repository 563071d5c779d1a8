import { inEachState } from './migrate';
import { isObject } from './reader';

/** Defaults that were once others: a document which leaves them out, and was made by this program then, meant these. */
const OLD: Readonly<Record<string, Readonly<Record<string, number>>>> = { crossfade: { cvAmount: 1 } };

function moduleWith(m: unknown): unknown {
  const old = isObject(m) && typeof m.kind === 'string' && Object.hasOwn(OLD, m.kind) ? OLD[m.kind] : undefined;
  if (!isObject(m) || !old) return m;
  const given = isObject(m.params) ? m.params : {};
  const missing = Object.keys(old).some((name) => !Object.hasOwn(given, name));
  return missing ? { ...m, params: { ...old, ...given } } : m;
}

function stateWith<T>(state: T): T {
  if (!isObject(state) || !Array.isArray(state.modules)) return state;
  const modules = state.modules.map(moduleWith);
  return modules.every((m, i) => m === (state.modules as unknown[])[i]) ? state : { ...state, modules };
}

/**
 * A document that this program stored while a default of its own differed from the published one, with that default
 * written out, in its variants too. The same object where nothing is to be done. Only for what is known to be as old:
 * a document from elsewhere means the published defaults.
 */
export function withOldDefaults<T>(doc: T): T {
  return inEachState(doc, stateWith);
}
