import { idOf, nameOf } from './sockets';
import { kindNamed } from '../kinds';
import { socketLabel } from '../kinds/kind';
import { inSentence, paramLabel } from '../kinds/knobs';
import { usualSocketLabel } from '../kinds/sockets';
import type { Kind } from '../kinds/kind';
import type { Patch } from './types';

interface Named {
  readonly id: string;
  readonly kind: string | Kind;
  readonly label?: string;
}

const kindOf = (m: Named | undefined): Kind | undefined => (typeof m?.kind === 'string' ? kindNamed(m.kind) : m?.kind);

/** `Lamp amp CV`: a socket of a module that is at hand. */
export const socketPlace = ({ label, kind }: { readonly label: string; readonly kind: Kind }, name: string): string =>
  `${label} ${inSentence(socketLabel(kind, name))}`;

/** Names worked out already, by the list of modules that they number. */
const named = new WeakMap<readonly Named[], ReadonlyMap<string, string>>();

/**
 * What each module is called: its label, else the title of its kind; where several share a name, all but the first are
 * numbered: `Tone`, `Tone 2`.
 */
export function moduleNames(modules: readonly Named[]): ReadonlyMap<string, string> {
  const known = named.get(modules);
  if (known) return known;
  const bases = modules.map((m) => m.label ?? kindOf(m)?.title ?? m.id);
  const taken = new Set(bases);
  const names = new Map<string, string>();
  const used = new Set<string>();
  modules.forEach((m, i) => {
    const base = bases[i] as string;
    let name = base;
    for (let n = 2; used.has(name); n++) name = taken.has(`${base} ${n}`) ? base : `${base} ${n}`;
    used.add(name);
    names.set(m.id, name);
  });
  named.set(modules, names);
  return names;
}

/** `Lamp amp CV` for a socket, `Lamp amp` for a module; the id where no such module is known. */
export function placeName(modules: readonly Named[], at: string): string {
  const [id, socket] = [idOf(at), nameOf(at)];
  const m = modules.find((x) => x.id === id);
  const kind = kindOf(m);
  const name = moduleNames(modules).get(id) ?? id;
  if (!socket) return name;
  return `${name} ${inSentence(kind ? socketLabel(kind, socket) : usualSocketLabel(socket))}`;
}

/** `Lamp amp CV amount` for a knob, as its kind has it. */
export function knobPlace(modules: readonly Named[], at: string): string {
  const [id, name] = [idOf(at), nameOf(at)];
  const kind = kindOf(modules.find((m) => m.id === id));
  return `${placeName(modules, id)} ${inSentence(paramLabel(name, kind?.params[name]))}`;
}

/** What an answer says, with the knobs that it names as `amp.cvAmount` called as people call them. */
export const withNames = (modules: readonly Named[], text: string): string =>
  text.replace(/(?<![\w.-])([a-z][\w-]*)\.([a-z]\w*)/g, (at: string, id: string, param: string) => {
    const kind = kindOf(modules.find((m) => m.id === id));
    return kind && Object.hasOwn(kind.params, param) ? knobPlace(modules, at) : at;
  });

/** The ids of the imported traces that a patch plays. */
export const recordingsOf = ({ modules }: Patch): string[] =>
  modules.flatMap((m) => {
    const id = m.params?.[kindNamed(m.kind)?.panel?.plays ?? ''];
    return id ? [String(id)] : [];
  });
