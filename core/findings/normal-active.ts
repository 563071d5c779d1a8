import { socketPlace } from '../document/names';
import { showVolts } from '../units/show';
import { setCure } from './finding';
import type { FindingRule, Found } from './finding';
import { feedingEnds, gainThrough } from './paths';

export const normalActive: FindingRule = {
  code: 'normal-active',
  why: 'A socket without a plug is not empty: its normal goes on adding its voltage. Turn its level to zero, or plug something in that is.',
  when: 'an unplugged socket’s normal, other than 0 V, contributes to an end',
  cures: 'a normal of 0 V',
  find({ graph }) {
    const feeding = feedingEnds(graph);
    const ends = new Set(graph.modules.filter((m) => m.kind.ends?.length));
    return graph.modules.flatMap((m) =>
      m.inputs.flatMap((s): Found[] => {
        if (s.plugged || s.driver.type !== 'volts' || s.driver.volts === 0) return [];
        const read = ends.has(m) && m.kind.ends?.some((e) => e.sockets.includes(s.spec.name));
        const passes = m.outputs.some(
          (o) => Math.abs(gainThrough(m, s, o.name, (x) => (x.driver.type === 'volts' ? x.driver.volts : 1))) > 1e-9,
        );
        if (!read && !(feeding.has(m) && passes)) return [];
        const { volts } = s.driver;
        return [
          {
            code: 'normal-active',
            severity: 'note',
            at: s.socket,
            message: `Nothing is plugged into ${socketPlace(m, s.spec.name)}, but its normal goes on contributing ${showVolts(volts)}.`,
            numbers: { volts },
            cures: [
              setCure('Set the normal to 0 V', { do: 'normal', to: s.socket, normal: { to: s.socket, volts: 0 } }),
            ],
          },
        ];
      }),
    );
  },
};
