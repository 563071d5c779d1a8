import { socketLabel } from '../kinds/kind';
import { inSentence } from '../kinds/knobs';
import { showVolts } from '../units/show';
import { cures, setCure } from './finding';
import type { FindingRule, Found } from './finding';
import { insertOffset } from './insert';

export const gateNever: FindingRule = {
  code: 'gate-never',
  title: 'Gate never triggers',
  why: 'A gate input does nothing below its threshold. Amplify or offset the voltage until it crosses it.',
  when: 'a gate input can never reach its threshold, wherever its faders stand',
  cures: 'adds a stage that amplifies the gate to 1.5 times the threshold, or offsets it up',
  find({ graph, overFaders }) {
    return graph.modules.flatMap((m) =>
      m.inputs.flatMap(({ spec, socket, connected, driver }, i): Found[] => {
        const [lowestVolts, highestVolts] = overFaders.get(m.id)?.inputs[i] ?? [0, 0];
        if (spec.threshold === undefined || !connected || driver.type !== 'output' || highestVolts >= spec.threshold)
          return [];
        const gain = (1.5 * spec.threshold) / highestVolts;
        const amplify =
          highestVolts > 0 && spec.threshold > 0
            ? insertOffset(graph, socket, 'Gate gain', Number(gain.toPrecision(3)), 0)
            : [];
        const middle = (lowestVolts + highestVolts) / 2;
        const lift = insertOffset(graph, socket, 'Gate offset', 1, Number((spec.threshold - middle).toPrecision(3)));
        return [
          {
            code: 'gate-never',
            severity: 'error',
            at: socket,
            message: `${m.label} is never triggered: its ${inSentence(socketLabel(m.kind, spec.name))} input peaks at ${showVolts(highestVolts)}, below its ${showVolts(spec.threshold)} threshold.`,
            numbers: { highestVolts, lowestVolts, thresholdVolts: spec.threshold },
            wanted: { at: socket, quantity: 'volts', low: null, high: 1.5 * spec.threshold },
            cures: cures(
              amplify.length > 0 ? setCure('Amplify the gate', ...amplify) : null,
              lift.length > 0 ? setCure('Offset the gate up', ...lift) : null,
            ),
          },
        ];
      }),
    );
  },
};
