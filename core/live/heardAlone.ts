import { idOf } from '../document/sockets';
import type { Patch } from '../document/types';
import { applyEdits } from '../edit/edit';
import { buildGraph } from '../graph/graph';
import type { GraphModule } from '../graph/graph';
import type { Ears } from './ears';

/**
 * A patch without the modules that two ears do not hang on: it sounds the same there, and takes less. What is plugged
 * into something that is heard stays too, since it loads it.
 *
 * @param also sockets that are listened to beside the ears.
 */
export function heardAlone(
  patch: Patch,
  { left, right }: Pick<Ears, 'left' | 'right'>,
  also: readonly string[] = [],
): Patch {
  const { modules } = buildGraph(patch);
  const driven = modules.map((): GraphModule[] => []);
  for (const m of modules)
    for (const { driver } of m.inputs) if (driver.type === 'output') driven[driver.module]?.push(m);
  const needed = new Set<GraphModule>();
  const loads = new Set<GraphModule>();
  const visit = (m: GraphModule | undefined): void => {
    if (!m || needed.has(m)) return;
    needed.add(m);
    for (const { driver } of m.inputs) if (driver.type === 'output') visit(modules[driver.module]);
    for (const load of driven[m.index] ?? []) {
      // What is passive passes on what hangs behind it, and beside it.
      if (load.kind.electrical?.passive?.(load.params)) visit(load);
      else loads.add(load);
    }
  };
  const ears = new Set([left, right, ...also].map(idOf));
  for (const m of modules) if (ears.has(m.id)) visit(m);
  const rest = modules.filter((m) => !needed.has(m) && !loads.has(m));
  if (rest.length === 0) return patch;
  return applyEdits(
    patch,
    rest.map(({ id }) => ({ do: 'remove', id })),
  );
}
