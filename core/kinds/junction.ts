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
    return { out: b.sum(...names.map((name, i) => [io.in(name), io.loading.weights[i] ?? 0] as const)) };
  },
});
