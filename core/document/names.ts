import { idOf, nameOf } from './sockets';
import { kindNamed } from '../kinds';
import type { Patch } from './types';

/** `Lamp amp, cv` for a socket, `Lamp amp` for a module; the id where no such module is known. */
export function placeName(modules: readonly { readonly id: string; readonly label?: string }[], at: string): string {
  const [id, socket] = [idOf(at), nameOf(at)];
  const name = modules.find((m) => m.id === id)?.label ?? id;
  return socket ? `${name}, ${socket}` : name;
}

/** The ids of the imported traces that a patch plays. */
export const recordingsOf = ({ modules }: Patch): string[] =>
  modules.flatMap((m) => {
    const id = m.params?.[kindNamed(m.kind)?.plays ?? ''];
    return id ? [String(id)] : [];
  });
