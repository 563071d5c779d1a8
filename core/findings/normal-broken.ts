import { placeName } from '../document/names';
import { idOf } from '../document/sockets';
import type { Graph } from '../graph/graph';
import { cures, setCure } from './finding';
import type { FindingRule, Found } from './finding';
import { reachedFrom } from './kept';

/** Whether what a cable feeds gets somewhere by itself: to a line output, a probe or a target. */
function isSend(graph: Graph, socket: string): boolean {
  const reached = reachedFrom(graph, idOf(socket));
  const watched = [...graph.patch.probes, ...graph.patch.targets].some(({ at }) => reached.has(idOf(at)));
  return watched || graph.modules.some((m) => reached.has(m.id) && m.kind.sound?.outlet !== undefined);
}

export const normalBroken: FindingRule = {
  code: 'normal-broken',
  title: 'Normal broken',
  why: 'Patching the source opened the switch that fed this input, and nothing replaced it. Patch a copy of the signal in here too.',
  when: 'a cable in its source breaks a normal, and nothing replaces it; not where that cable is a send: what it feeds reaches a line output, a probe or a target',
  cures: 'patches the source there too, where that closes no loop',
  find({ graph }) {
    const { wiring } = graph;
    const place = (at: string): string => placeName(graph.patch.modules, at);
    return wiring.links.flatMap((n): Found[] => {
      const [cable] = wiring.cablesFrom(n.from);
      if (!wiring.isBroken(n) || !cable || isSend(graph, cable.to)) return [];
      const isOutput = graph.modules.some((m) => m.outputs.some((o) => o.socket === n.from));
      return [
        {
          code: 'normal-broken',
          severity: 'warning',
          at: n.to,
          message: `Patching ${place(n.from)} (to ${place(cable.to)}) breaks the normal to ${place(n.to)}, which now gets nothing.`,
          numbers: {},
          cures: cures(
            isOutput ? setCure('Patch it with a cable', { do: 'plug', cable: { from: n.from, to: n.to } }) : null,
          ),
        },
      ];
    });
  },
};
