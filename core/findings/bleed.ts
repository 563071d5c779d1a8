import { socketAt } from '../document/sockets';
import { dbOf } from '../units/ratios';
import { showDb } from '../units/show';
import { cures, setCure, setParam } from './finding';
import type { FindingRule, Found } from './finding';

const LOUDER_THAN_DB = -60;
const MOST_TRIM = 0.1;

export const bleed: FindingRule = {
  code: 'bleed',
  why: 'A real multiplier lets a little of each input through beside the product. Trim its bias until the input alone falls silent.',
  when: 'a multiplier’s input feeds through louder than −60 dB under its product',
  cures: 'the trim that nulls it',
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
            message: `${m.label} lets ${input} through, ${showDb(bleedDb)} beside the product.`,
            numbers: { bleedDb },
            cures: cures(Math.abs(value) <= MOST_TRIM ? setCure('Trim to null', setParam(m.id, trim, value)) : null),
          },
        ];
      });
    });
  },
};
