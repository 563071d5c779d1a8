import { BoundsEngine } from '../bounds/bounds';
import { completeParams } from '../document/params';
import { buildGraph } from '../graph/graph';
import { kindNamed } from '../kinds';
import type { ParamValues } from '../kinds/params';
import { stream } from '../kinds/random';
import { simulateGraph } from '../simulate/simulate';
import { patchOf } from './patch';
import { randomParams } from './randomPatch';

/** What a formula needs to know of its module. */
export interface Told {
  readonly p: ParamValues;
  /** A parameter that is a number. */
  readonly n: (name: string) => number;
  readonly plugged: (socket: string) => boolean;
  readonly sampleRate: number;
}

/** A kind's formula written down a second time: its outputs at one sample, of the voltages at its inputs then. */
export type Formula = (told: Told) => (volts: (socket: string) => number) => Readonly<Record<string, number>>;

const RAILS = 12;
const RATE = 8000;
const WAVES = ['triangle', 'sine', 'rampUp', 'stepped', 'smooth', 'pulse'] as const;
/** Seen and said may differ by rounding alone, volts. */
const SLACK = 1e-9;

/** A module of a kind with any settings, whose inputs are fed by LFOs of any range, or by nothing. */
function fed(name: string, seed: number, held: ParamValues) {
  const kind = kindNamed(name);
  if (!kind) throw new Error(`no kind ${name}`);
  const random = stream(seed);
  const values = { ...randomParams(random, kind), ...held };
  const params = completeParams(kind, values);
  const plugged = kind
    .inputs(params)
    .map((i) => i.name)
    .filter(() => random() < 0.75);
  const sources = plugged.map((_, i) => {
    const [a, b] = [-12 + 24 * random(), -12 + 24 * random()];
    const [lowVolts, highVolts] = [Math.max(-RAILS, Math.min(a, b) - 0.01), Math.min(RAILS, Math.max(a, b) + 0.01)];
    const shape = WAVES[Math.floor(random() * WAVES.length)] as string;
    return [
      `s${i}`,
      ['lfo', { shape, rateHz: 20 + 300 * random() ** 3, phase: random(), lowVolts, highVolts }],
    ] as const;
  });
  const patch = patchOf(
    { ...Object.fromEntries(sources), m: [name, values] },
    plugged.map((socket, i) => `s${i}.out > m.${socket}`),
    { duration: 0.03, sampleRate: RATE },
  );
  return { patch, params, plugged, outputs: kind.outputs(params) };
}

/**
 * Simulates modules of a kind with any settings and compares each sample of each output with its formula, and with
 * what is guaranteed.
 *
 * @returns the first that differs, with its seed; null where none does.
 */
export function firstDeviation(name: string, formula: Formula, seeds: number, held: ParamValues = {}): string | null {
  for (let seed = 0; seed < seeds; seed++) {
    const { patch, params, plugged, outputs } = fed(name, seed * 977 + name.length, held);
    const graph = buildGraph(patch);
    const sockets = [...plugged.map((_, i) => `s${i}.out`), ...outputs.map((o) => `m.${o}`)];
    const { traces } = simulateGraph(graph, { traces: sockets });
    const bounds = new BoundsEngine().run(graph).get('m')?.outputs ?? [];
    const at = new Map(plugged.map((socket, i) => [socket, traces.get(`s${i}.out`)]));
    const step = formula({
      p: params,
      n: (of) => Number(params[of]),
      plugged: (socket) => at.has(socket),
      sampleRate: RATE,
    });
    for (let k = 0; k < 0.03 * RATE; k++) {
      const told = step((socket) => at.get(socket)?.[k] ?? 0);
      if (Object.keys(told).sort().join() !== [...outputs].sort().join())
        return `the formula tells ${Object.keys(told)}`;
      for (const [i, output] of outputs.entries()) {
        const seen = traces.get(`m.${output}`)?.[k] ?? NaN;
        const said = Math.min(RAILS, Math.max(-RAILS, told[output] ?? NaN));
        const [low, high] = bounds[i] ?? [NaN, NaN];
        if (!(Math.abs(seen - said) <= SLACK))
          return `seed ${seed}, ${output} at ${k}: ${seen}, the formula says ${said}`;
        if (!(seen >= low - SLACK && seen <= high + SLACK))
          return `seed ${seed}, ${output} at ${k}: ${seen} is out of bound`;
      }
    }
  }
  return null;
}
