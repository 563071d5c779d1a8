import { socketLabel } from '../kinds/kind';
import { socketAt } from '../document/sockets';
import { dbOf } from '../units/ratios';
import { showDb } from '../units/show';
import { cures, setCure, setParam } from './finding';
import type { FindingRule, Found } from './finding';

const LOUDER_THAN_DB = -60;
const MOST_TRIM = 0.1;

export const bleed: FindingRule = {
  code: 'bleed',
  title: 'Feedthrough',
  why: 'A real multiplier leaks a little of each input. Adjust the trim until one input alone is silent.',
  when: 'an input of a multiplier leaks at more than −60 dB relative to the product',
  cures: 'sets the trim that nulls it',
  find({ graph, bounds }) {
    return graph.modules.flatMap((m) => {
      const peak = (name: string): number => {
        const [lo, hi] = bounds.get(m.id)?.inputs[m.inputs.findIndex((s) => s.spec.name === name)] ?? [0, 0];
        return Math.max(hi, -lo);
      };
      const through = m.kind.sound?.feedthrough?.(m.params, peak) ?? [];
      return through.flatMap(({ input, trim, bleed: share, product }): Found[] => {
        const bleedDb = product > 0 ? dbOf(share / product) : null;
        if (bleedDb === null || bleedDb <= LOUDER_THAN_DB) return [];
        const value = Number(m.params[trim]) - share;
        return [
          {
            code: 'bleed',
            severity: 'note',
            at: socketAt(m.id, input),
            message: `${m.label} leaks its ${socketLabel(m.kind, input)} input at ${showDb(bleedDb)} relative to the product.`,
            numbers: { bleedDb },
            cures: cures(
              Math.abs(value) <= MOST_TRIM ? setCure('Null the feedthrough', setParam(m.id, trim, value)) : null,
            ),
          },
        ];
      });
    });
  },
};
