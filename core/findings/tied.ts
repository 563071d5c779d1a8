import { sourceOhmsAt } from '../graph/loading';
import { showNumber } from '../units/show';
import type { FindingRule, Found } from './finding';
import { mixerInstead } from './insert';
import { sourceOf } from './paths';

/** Below this an output has no resistor of its own that would keep it from another, ohms. */
const LEAST_OHMS = 100;

export const tied: FindingRule = {
  code: 'tied',
  why: 'Two outputs that are joined by bare wire drive against each other, and the weaker one can be harmed. Join them by resistors of about a kilohm, or by a mixer.',
  when: 'two outputs of under 100 Ω each are tied into one junction',
  cures: 'a mixer in its place',
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
          message: `${first.label} and ${second.label} are tied into ${m.label} with ${showNumber(first.ohms + second.ohms, 0)} Ω between them: each works against the other.`,
          numbers: { ohms: first.ohms + second.ohms },
          cures: [mixerInstead(graph, m)],
        },
      ];
    });
  },
};
