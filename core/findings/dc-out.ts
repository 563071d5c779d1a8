import { socketPlace } from '../document/names';
import { gainOf } from '../units/ratios';
import { showVolts } from '../units/show';
import { setCure, setParam } from './finding';
import type { FindingRule, Found } from './finding';

const LEAST_VOLTS = 0.01;

export const dcOut: FindingRule = {
  code: 'dc-out',
  why: 'A steady voltage moves a speaker’s cone off its middle and can harm it and what drives it. Block it before it leaves the rack.',
  when: 'a line output without DC block carries more than 10 mV of constant voltage',
  cures: 'DC block',
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
              message: `${socketPlace(m, s.spec.name)} sends ${showVolts(volts)} of constant voltage outside, where it does not belong.`,
              numbers: { volts },
              cures: [setCure('Block DC', setParam(m.id, 'dcBlock', true))],
            },
          ];
        }),
      );
  },
};
