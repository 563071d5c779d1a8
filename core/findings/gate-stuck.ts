import { GATE_HYSTERESIS } from '../kinds/detect';
import { showVolts } from '../units/show';
import { cures, setCure } from './finding';
import type { FindingRule, Found } from './finding';
import { insertOffset } from './insert';

export const gateStuck: FindingRule = {
  code: 'gate-stuck',
  why: 'A gate that never falls is only one gate: an envelope behind it opens once and stays. Lower the voltage, or its offset, until it falls below the threshold.',
  when: 'a gate input can never fall below its threshold',
  cures: 'a stage that lowers it',
  find({ graph, bounds }) {
    return graph.modules.flatMap((m) =>
      m.inputs.flatMap(({ spec, socket, connected, driver }, i): Found[] => {
        const [lowestVolts, highestVolts] = bounds.get(m.id)?.inputs[i] ?? [0, 0];
        if (spec.threshold === undefined || !connected || driver.type !== 'output') return [];
        if (lowestVolts < spec.threshold - GATE_HYSTERESIS) return [];
        const fallen = spec.threshold - 2 * GATE_HYSTERESIS;
        const edits = insertOffset(
          graph,
          socket,
          'Gate lower',
          1,
          -Number(((lowestVolts + highestVolts) / 2 - spec.threshold).toPrecision(3)),
        );
        return [
          {
            code: 'gate-stuck',
            severity: 'warning',
            at: socket,
            message: `${m.label} stays triggered: ${spec.name} never falls below ${showVolts(lowestVolts)}, and its threshold is ${showVolts(spec.threshold)}.`,
            numbers: { lowestVolts, highestVolts, thresholdVolts: spec.threshold },
            wanted: { at: socket, quantity: 'volts', low: fallen, high: fallen + highestVolts - lowestVolts },
            cures: cures(edits.length > 0 ? setCure('Lower the gate', ...edits) : null),
          },
        ];
      }),
    );
  },
};
