import { BoundsEngine } from '../bounds/bounds';
import { blank } from '../document/parse';
import type { ModuleDoc } from '../document/types';
import { buildGraph } from '../graph/graph';
import { kindNamed } from '../kinds';

/**
 * What a new destination is set to so that its socket does something: the first amount knob that it waits for, at 1.
 *
 * @returns nothing where the socket works by itself, or never does.
 */
export function openedEnd(kindName: string, socket: string): ModuleDoc['params'] | undefined {
  const kind = kindNamed(kindName);
  const index = kind?.ends?.findIndex((e) => e.socket === socket) ?? -1;
  if (!kind || index < 0) return undefined;
  const knobs = Object.entries(kind.params).filter(
    ([name, spec]) => /amount\d*$/i.test(name) && spec.type === 'number',
  );
  const settings = [undefined, ...knobs.map(([name]) => ({ [name]: 1 }))];
  return settings.find((params) => {
    const end: ModuleDoc = { id: 'end', kind: kindName, ...(params && { params }) };
    return lineOf(socket, end, index)[1] !== 0;
  });
}

/** The destination's drive as a line of the voltage at the socket: at 0 V, and a volt's worth. */
function lineOf(socket: string, end: ModuleDoc, index: number): readonly [number, number] {
  const at = (volts: number): number => {
    const fixed: ModuleDoc = { id: 'fixed', kind: 'constant', params: { volts } };
    const cable = { from: 'fixed.out', to: `end.${socket}` };
    const found = new BoundsEngine().run(buildGraph({ ...blank, modules: [fixed, end], cables: [cable] }));
    return found.get('end')?.ends[index]?.drive[0] ?? 0;
  };
  const zero = at(0);
  return [zero, at(1) - zero];
}
