import { showVolts } from '../units/show';
import type { Finding, FindingRule } from './finding';
import { insertOffset } from './paths';

export const gateNever: FindingRule = {
  code: 'gate-never',
  why: 'An input that waits for a gate does nothing below its threshold. Lift or amplify the voltage until it crosses.',
  when: 'a gate input can never reach its threshold',
  cures: 'a stage that amplifies to half as much again as the threshold, or lifts to it',
  find({ graph, bounds }) {
    return graph.modules.flatMap((m) =>
      m.inputs.flatMap(({ spec, socket, connected, driver }, i): Finding[] => {
        const [lowestVolts, highestVolts] = bounds.get(m.id)?.inputs[i] ?? [0, 0];
        if (spec.threshold === undefined || !connected || driver.type !== 'output' || highestVolts >= spec.threshold)
          return [];
        const gain = (1.5 * spec.threshold) / highestVolts;
        const amplified = highestVolts > 0 && gain <= 4;
        const edits = amplified
          ? insertOffset(graph, socket, 'Gate gain', Number(gain.toPrecision(3)), 0)
          : insertOffset(graph, socket, 'Gate lift', 1, Number((spec.threshold - highestVolts + 0.5).toPrecision(3)));
        return [
          {
            code: 'gate-never',
            severity: 'error',
            at: socket,
            message: `${m.label} is never triggered: ${spec.name} reaches ${showVolts(highestVolts)} at most, and its threshold is ${showVolts(spec.threshold)}.`,
            numbers: { highestVolts, lowestVolts, thresholdVolts: spec.threshold },
            ...(edits.length > 0 && { cure: { label: amplified ? 'Amplify the gate' : 'Lift the gate', edits } }),
          },
        ];
      }),
    );
  },
};
