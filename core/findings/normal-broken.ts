import { cures, setCure } from './finding';
import type { FindingRule, Found } from './finding';

export const normalBroken: FindingRule = {
  code: 'normal-broken',
  why: 'A plug in the source opened the switch that fed this socket, and nothing took its place. Plug a copy of the signal in here too.',
  when: 'a cable in its source breaks a normal, and nothing else is plugged in its place',
  find({ graph }) {
    const { wiring } = graph;
    return wiring.links.flatMap((n): Found[] => {
      const [cable] = wiring.cablesFrom(n.from);
      if (!wiring.isBroken(n) || !cable) return [];
      const isOutput = graph.modules.some((m) => m.outputs.some((o) => o.socket === n.from));
      return [
        {
          code: 'normal-broken',
          severity: 'warning',
          at: n.to,
          message: `The plug in ${n.from} (to ${cable.to}) breaks the normal to ${n.to}, which is silent now.`,
          numbers: {},
          cures: cures(isOutput ? setCure('Plug it by hand', { do: 'plug', cable: { from: n.from, to: n.to } }) : null),
        },
      ];
    });
  },
};
