import type { Affine } from '../law/affine';
import { kind, never, signal } from './kind';
import { choice, flag, number, reach, setUp, volts, rare } from './params';
import type { ParamValues } from './params';

const most = 8;
const numbers = (inputs: number): number[] => Array.from({ length: inputs }, (_, i) => i + 1);

function gain(n: number) {
  return number(1, -2, 2, '', {
    limits: (p: ParamValues) => [p.bipolar === true ? -Number(p.maxGain) : 0, Number(p.maxGain)],
    exists: (p: ParamValues) => n <= Number(p.inputs),
  });
}

export const mixer = kind({
  name: 'mixer',
  title: 'Mixer',
  does: 'sums several signals',
  aliases: ['sum', 'average'],
  words: {
    params: {
      inputs: 'Number of inputs',
      gain1: 'Level 1',
      gain2: 'Level 2',
      gain3: 'Level 3',
      gain4: 'Level 4',
      gain5: 'Level 5',
      gain6: 'Level 6',
      gain7: 'Level 7',
      gain8: 'Level 8',
      bipolar: 'Bipolar levels',
      maxGain: 'Maximum gain',
      law: 'Mix mode',
      biasVolts: 'Offset',
      inverting: 'Invert output',
    },
    says: { bipolar: 'knobs attenuvert' },
    options: { law: { sum: 'Sum', average: 'Average' } },
  },
  formula: 'out = Σ gain_i·in_i (average: divided by the inputs in use, at least 1) + biasVolts, negated if inverting',
  category: 'between',
  stage: {
    flips: (p) => p.inverting,
    lift: { param: 'biasVolts', perVolt: (p) => (p.inverting ? -1 : 1) },
  },
  params: {
    inputs: reach(setUp(number(3, 2, most, '', { whole: true }))),
    gain1: gain(1),
    gain2: gain(2),
    gain3: gain(3),
    gain4: gain(4),
    gain5: gain(5),
    gain6: gain(6),
    gain7: gain(7),
    gain8: gain(8),
    bipolar: reach(flag(false)),
    maxGain: reach(setUp(choice([1, 2]))),
    law: choice(['sum', 'average']),
    biasVolts: rare(volts(0)),
    inverting: flag(false),
  },
  brief: (p) => `${p.law === 'sum' ? 'sum' : 'average'} of ${p.inputs}${p.inverting ? ', inverted' : ''}`,
  inputs: (p) => numbers(p.inputs).map((n) => signal(`in${n}`, 0, `gain${n}`)),
  outputs: () => ['out', 'inverted'],
  panel: {
    scaledBy: (p) => [...numbers(p.inputs).map((n) => `gain${n}`), 'biasVolts'],
    linear: (p) => [...numbers(p.inputs).map((n) => `gain${n}`), 'biasVolts'],
  },
  memory: never,
  negated: { inverted: 'out' },
  law(b, p, io): Record<string, Affine> {
    const gains = [p.gain1, p.gain2, p.gain3, p.gain4, p.gain5, p.gain6, p.gain7, p.gain8];
    const names = numbers(p.inputs).map((n) => `in${n}`);
    const used = names.filter((name) => io.connected(name)).length;
    const share = p.law === 'average' ? 1 / Math.max(1, used) : 1;
    const sum = b.sum(...names.map((name, i) => [io.in(name), (gains[i] as number) * share] as const));
    const out = b.scale(b.scale(sum, 1, p.biasVolts), p.inverting ? -1 : 1);
    return { out, inverted: b.scale(out, -1) };
  },
});
