import { socketAt } from '../document/sockets';
import type { GraphModule } from '../graph/graph';
import { dbOf } from '../units/db';
import { showDb } from '../units/show';
import { cures, setCure, setParam } from './finding';
import type { FindingRule, Found } from './finding';

const LOUDER_THAN_DB = -60;
const MOST_TRIM = 0.1;

interface Through {
  readonly input: string;
  readonly trim: string;
  /** Feedthrough per volt, trim included. */
  readonly bleed: number;
  /** Volts of product for a volt of this input. */
  readonly product: number;
}

function throughs(m: GraphModule, peak: (name: string) => number): readonly Through[] {
  const p = m.params;
  if (m.kind.name === 'vca') {
    const signal = Math.max(peak('in'), peak('in2'));
    return [
      {
        input: 'cv',
        trim: 'bleedTrim',
        bleed: Number(p.bleed) + Number(p.bleedTrim),
        product: signal / Number(p.unityVolts),
      },
    ];
  }
  if (m.kind.name !== 'ringMod') return [];
  const scale = Number(p.scaleVolts);
  return [
    { input: 'a', trim: 'trimA', bleed: Number(p.bleedA) + Number(p.trimA), product: peak('b') / scale },
    { input: 'b', trim: 'trimB', bleed: Number(p.bleedB) + Number(p.trimB), product: peak('a') / scale },
  ];
}

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
      return throughs(m, peak).flatMap(({ input, trim, bleed: share, product }): Found[] => {
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
