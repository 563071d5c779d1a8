import type { RackModule } from '../../document/rackTypes';
import { parseRack } from '../../document/rack';
import { kindNamed, searchWords } from '../../kinds';
import { mixingTypes } from './mixing';
import { movingTypes } from './moving';
import { scalingTypes } from './scaling';
import { soundingTypes } from './sounding';
import { timingTypes } from './timing';
import type { ModuleType } from './type';

export type { ModuleType } from './type';

/** Types under what they are for, in the order in which they are offered. */
export const catalogue: readonly { readonly title: string; readonly types: readonly ModuleType[] }[] = [
  { title: 'Attenuators and offsets', types: scalingTypes },
  { title: 'Mixers, VCAs and modulators', types: mixingTypes },
  { title: 'LFOs, envelopes and slew', types: movingTypes },
  { title: 'Clocks, logic and sequencing', types: timingTypes },
  { title: 'Oscillators, filters and I/O', types: soundingTypes },
];

/** What else people type to find a type: what its channels are called, and go by. */
export function aliasesOf({ channels }: ModuleType): string[] {
  const kinds = channels.flatMap(({ kind, modes }) =>
    (Array.isArray(modes) ? (modes as readonly { readonly kind?: unknown }[]) : [{ kind }]).map((m) => String(m.kind)),
  );
  return [...new Set(kinds)].flatMap((name) => searchWords(kindNamed(name)));
}

export const typeNamed = (name: string): ModuleType | undefined =>
  catalogue.flatMap((c) => c.types).find((t) => t.type === name);

/** A module of a type, as a rack has it; null for a type that is not there. */
export function moduleOfType(type: string, id: string): RackModule | null {
  const found = typeNamed(type);
  if (!found) return null;
  const { name, hp, channels } = found;
  const read = parseRack({ format: 'fenvo.rack', version: 1, modules: [{ id, name, type, hp, channels }] });
  return read.ok ? (read.value.modules[0] ?? null) : null;
}
