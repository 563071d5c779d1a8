import { kindNamed } from '../kinds';
import type { Kind } from '../kinds/kind';
import type { ParamValues } from '../kinds/params';
import { completeParams } from './params';
import type { KnownModule } from './reader';
import { idOf, nameOf } from './sockets';

/** The quantities that a socket of a kind can be asked for: those of the destinations it counts at, and its volts. */
export function quantitiesAt(kind: Kind, params: ParamValues, socket: string): string[] {
  const ends = (kind.ends ?? []).filter(
    (e) => (e.socket === socket || e.sockets.includes(socket)) && (e.exists?.(params) ?? true),
  );
  const own = ends.filter((e) => e.socket === socket);
  const named = (own.length > 0 ? own : ends).flatMap((e): string[] => {
    // A parameter is read in a unit that a person names.
    const unit = e.quantity === 'value' ? e.unit(params) : '';
    return unit === '' ? [e.quantity] : [e.quantity, unit];
  });
  return [...new Set([...named, 'volts'])];
}

/** The same for a socket of a document; volts alone where there is no such module. */
export function quantitiesIn(modules: readonly KnownModule[], at: string): string[] {
  const m = modules.find((x) => x.id === idOf(at));
  const kind = m && kindNamed(m.kind);
  return kind ? quantitiesAt(kind, completeParams(kind, m.params), nameOf(at)) : ['volts'];
}
