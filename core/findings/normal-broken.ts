import { placeName } from '../document/names';
import { cures, setCure } from './finding';
import type { FindingRule, Found } from './finding';

export const normalBroken: FindingRule = {
  code: 'normal-broken',
  title: 'Normal broken',
  why: 'Patching the source opened the switch that fed this input, and nothing replaced it. Patch a copy of the signal in here too.',
  when: 'a cable in its source breaks a normal, and nothing replaces it',
  find({ graph }) {
    const { wiring } = graph;
    const place = (at: string): string => placeName(graph.patch.modules, at);
    return wiring.links.flatMap((n): Found[] => {
      const [cable] = wiring.cablesFrom(n.from);
      if (!wiring.isBroken(n) || !cable) return [];
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
