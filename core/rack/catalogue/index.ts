import type { RackModule } from '../../document/rackTypes';
import { parseRack } from '../../document/rack';
import { mixingTypes } from './mixing';
import { movingTypes } from './moving';
import { scalingTypes } from './scaling';
import { soundingTypes } from './sounding';
import { timingTypes } from './timing';
import type { ModuleType } from './type';

export type { ModuleType } from './type';

/** Types under what they are for, in the order in which they are offered. */
export const catalogue: readonly { readonly title: string; readonly types: readonly ModuleType[] }[] = [
  { title: 'Scale, flip, lift', types: scalingTypes },
  { title: 'Mix and multiply', types: mixingTypes },
  { title: 'Move', types: movingTypes },
  { title: 'Count, step, compare, hold', types: timingTypes },
  { title: 'Sound, in and out', types: soundingTypes },
];

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
