import { sourceOhmsAt } from '../graph/loading';
import { showNumber } from '../units/show';
import type { FindingRule, Found } from './finding';
import { mixerInstead } from './insert';
import { sourceOf } from './paths';

/** Below this an output has no resistor of its own that would keep it from another, ohms. */
const LEAST_OHMS = 100;

export const tied: FindingRule = {
  code: 'tied',
  title: 'Outputs joined',
  why: 'Two outputs joined by bare wire drive against each other, and the weaker one can be damaged. Join them with resistors of about 1 kΩ, or use a mixer.',
  when: 'two outputs of less than 100 Ω each are joined at one junction',
  cures: 'replaces the junction with a mixer',
  find({ graph }) {
    return graph.modules.flatMap((m): Found[] => {
      if (!m.kind.electrical?.joins) return [];
      const sources = m.inputs.flatMap((s) => {
        const from = s.plugged ? sourceOf(graph, s) : null;
        return from ? [{ label: from.m.label, ohms: sourceOhmsAt(graph, s.socket) }] : [];
      });
      const stiff = sources.filter((s) => s.ohms < LEAST_OHMS).sort((a, b) => a.ohms - b.ohms);
      const [first, second] = stiff;
      if (!first || !second) return [];
      return [
        {
          code: 'tied',
          severity: 'warning',
          at: m.outputs[0]?.socket ?? m.id,
          message: `${first.label} and ${second.label} are joined at ${m.label} with only ${showNumber(first.ohms + second.ohms, 0)} Ω between them: the outputs fight each other.`,
          numbers: { ohms: first.ohms + second.ohms },
          cures: [mixerInstead(graph, m)],
        },
      ];
    });
  },
};
