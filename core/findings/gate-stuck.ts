import { socketLabel } from '../kinds/kind';
import { inSentence } from '../kinds/knobs';
import { GATE_HYSTERESIS } from '../kinds/detect';
import { showVolts } from '../units/show';
import { cures, setCure } from './finding';
import type { FindingRule, Found } from './finding';
import { insertOffset } from './insert';
import { asksForAlwaysHigh } from './wanted';

export const gateStuck: FindingRule = {
  code: 'gate-stuck',
  title: 'Gate stuck high',
  why: 'A gate that never falls triggers once and stays high. Lower the voltage, or its offset, until it falls below the threshold.',
  when: 'a gate input can never fall below its threshold, wherever its faders stand, and no target asks for that',
  cures: 'adds a stage that offsets the gate down',
  find({ graph, overFaders }) {
    return graph.modules.flatMap((m) =>
      m.inputs.flatMap(({ spec, socket, connected, driver }, i): Found[] => {
        const [lowestVolts, highestVolts] = overFaders.get(m.id)?.inputs[i] ?? [0, 0];
        if (spec.threshold === undefined || !connected || driver.type !== 'output') return [];
        if (lowestVolts < spec.threshold - GATE_HYSTERESIS || asksForAlwaysHigh(graph, socket)) return [];
        const fallen = spec.threshold - 2 * GATE_HYSTERESIS;
        const edits = insertOffset(
          graph,
          socket,
          'Gate offset',
          1,
          -Number(((lowestVolts + highestVolts) / 2 - spec.threshold).toPrecision(3)),
        );
        return [
          {
            code: 'gate-stuck',
            severity: 'warning',
            at: socket,
            message: `${m.label} stays triggered: its ${inSentence(socketLabel(m.kind, spec.name))} input never falls below ${showVolts(lowestVolts)}, above its ${showVolts(spec.threshold)} threshold.`,
            numbers: { lowestVolts, highestVolts, thresholdVolts: spec.threshold },
            wanted: { at: socket, quantity: 'volts', low: fallen, high: fallen + highestVolts - lowestVolts },
            cures: cures(edits.length > 0 ? setCure('Offset the gate down', ...edits) : null),
          },
        ];
      }),
    );
  },
};
