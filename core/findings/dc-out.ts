import { socketPlace } from '../document/names';
import { gainOf } from '../units/ratios';
import { showVolts } from '../units/show';
import { setCure, setParam } from './finding';
import type { FindingRule, Found } from './finding';

const LEAST_VOLTS = 0.01;

export const dcOut: FindingRule = {
  code: 'dc-out',
  title: 'DC at the output',
  why: 'DC pushes a speaker cone off centre and can damage it and the amplifier. Block it before it leaves the rack.',
  when: 'a line output without DC block carries more than 10 mV DC',
  cures: 'turns on the DC block',
  find({ graph, simulation }) {
    if (!simulation) return [];
    return graph.modules
      .filter((m) => m.kind.sound?.outlet?.stopsDc(m.params) === false)
      .flatMap((m) =>
        m.inputs.flatMap((s): Found[] => {
          const volts = (simulation.inputs.get(s.socket)?.mean ?? 0) * gainOf(-Number(m.params.padDb));
          if (!s.connected || Math.abs(volts) <= LEAST_VOLTS) return [];
          return [
            {
              code: 'dc-out',
              severity: 'warning',
              at: s.socket,
              message: `${socketPlace(m, s.spec.name)} sends ${showVolts(volts)} DC out of the rack.`,
              numbers: { volts },
              cures: [setCure('Turn on the DC block', setParam(m.id, 'dcBlock', true))],
            },
          ];
        }),
      );
  },
};
