import { showVolts } from '../units/show';
import { cures, setCure } from './finding';
import type { FindingRule, Found } from './finding';
import { insertOffset } from './insert';

export const gateNever: FindingRule = {
  code: 'gate-never',
  why: 'An input that waits for a gate does nothing below its threshold. Lift or amplify the voltage until it crosses.',
  when: 'a gate input can never reach its threshold',
  cures: 'a stage that amplifies to half as much again as the threshold, or lifts to it',
  find({ graph, bounds }) {
    return graph.modules.flatMap((m) =>
      m.inputs.flatMap(({ spec, socket, connected, driver }, i): Found[] => {
        const [lowestVolts, highestVolts] = bounds.get(m.id)?.inputs[i] ?? [0, 0];
        if (spec.threshold === undefined || !connected || driver.type !== 'output' || highestVolts >= spec.threshold)
          return [];
        const gain = (1.5 * spec.threshold) / highestVolts;
        const amplify =
          highestVolts > 0 && spec.threshold > 0
            ? insertOffset(graph, socket, 'Gate gain', Number(gain.toPrecision(3)), 0)
            : [];
        const middle = (lowestVolts + highestVolts) / 2;
        const lift = insertOffset(graph, socket, 'Gate lift', 1, Number((spec.threshold - middle).toPrecision(3)));
        return [
          {
            code: 'gate-never',
            severity: 'error',
            at: socket,
            message: `${m.label} is never triggered: ${spec.name} reaches ${showVolts(highestVolts)} at most, and its threshold is ${showVolts(spec.threshold)}.`,
            numbers: { highestVolts, lowestVolts, thresholdVolts: spec.threshold },
            wanted: { at: socket, quantity: 'volts', low: null, high: 1.5 * spec.threshold },
            cures: cures(
              amplify.length > 0 ? setCure('Amplify the gate', ...amplify) : null,
              lift.length > 0 ? setCure('Lift the gate', ...lift) : null,
            ),
          },
        ];
      }),
    );
  },
};
