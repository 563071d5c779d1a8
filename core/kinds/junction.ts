import { kind, never, signal } from './kind';

const names = ['in1', 'in2', 'in3', 'in4'] as const;

export const junction = kind({
  name: 'junction',
  title: 'Passive junction',
  does: 'joins outputs without a mixer',
  aliases: ['stackable'],
  words: { params: {} },
  formula: 'out = Σ(V_i/R_i) / (Σ 1/R_i + 1/R_load), R_i at least 1 Ω; ideal: the mean of what is plugged',
  category: 'between',
  electrical: {
    unracked: 'always',
    joins: true,
  },
  params: {},
  brief: () => 'loading decides',
  inputs: () => names.map((name) => signal(name)),
  outputs: () => ['out'],
  memory: never,
  law(b, _p, io) {
    const { weights, spread } = io.loading;
    if (!spread) return { out: b.sum(...names.map((name, i) => [io.in(name), weights[i] ?? 0] as const)) };
    const share = (i: number) => io.symbol(`share ${i + 1}`, ...(spread.weights[i] ?? ([0, 0] as const)));
    return { out: b.sum(...names.map((name, i) => [b.mul(io.in(name), share(i)), 1] as const)) };
  },
});
