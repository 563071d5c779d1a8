import { idOf, nameOf } from './sockets';
import { kindNamed } from '../kinds';
import { spoken } from '../kinds/knobs';
import type { Patch } from './types';

/** `Lamp amp, cv` for a socket, `Lamp amp` for a module; the id where no such module is known. */
export function placeName(modules: readonly { readonly id: string; readonly label?: string }[], at: string): string {
  const [id, socket] = [idOf(at), nameOf(at)];
  const name = modules.find((m) => m.id === id)?.label ?? id;
  return socket ? `${name}, ${socket}` : name;
}

interface Named {
  readonly id: string;
  readonly kind: string;
  readonly label?: string;
}

/** `Lamp amp, cv amount` for a knob, as its kind has it. */
export function knobPlace(modules: readonly Named[], at: string): string {
  const [id, name] = [idOf(at), nameOf(at)];
  const kind = kindNamed(modules.find((m) => m.id === id)?.kind ?? '');
  return `${placeName(modules, id)}, ${spoken(name, kind?.params[name])}`;
}

/** What an answer says, with the knobs that it names as `amp.cvAmount` called as people call them. */
export const withNames = (modules: readonly Named[], text: string): string =>
  text.replace(/(?<![\w.-])([a-z][\w-]*)\.([a-z]\w*)/g, (at: string, id: string, param: string) => {
    const kind = kindNamed(modules.find((m) => m.id === id)?.kind ?? '');
    return kind && Object.hasOwn(kind.params, param) ? knobPlace(modules, at) : at;
  });

/** The ids of the imported traces that a patch plays. */
export const recordingsOf = ({ modules }: Patch): string[] =>
  modules.flatMap((m) => {
    const id = m.params?.[kindNamed(m.kind)?.panel?.plays ?? ''];
    return id ? [String(id)] : [];
  });
