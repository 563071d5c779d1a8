import type { Patch, Target } from '../document/types';
import type { ParamValue } from '../kinds/params';
import { stream } from '../kinds/random';
import { predict } from '../answers/predict';
import { patchOf } from './patch';

type Params = Record<string, ParamValue>;
type Link = [kind: string, params: Params];

/** Stages whose outputs are straight lines of their inputs and of each knob, and bent ones. */
const STRAIGHT = ['attenuator', 'attenuverter', 'offset', 'inverter', 'mixer'] as const;
const BENT = ['rectifier', 'shaper', 'ringMod', 'vca', 'polarizer'] as const;
const ENDS = [
  ['filter', 'cutoff'],
  ['vca', 'cv'],
  ['crossfade', 'cv'],
  ['parameter', 'cv'],
  ['oscillator', 'pitch'],
] as const;

/** A chain from an LFO to a destination, by a seed: its patch, and the knobs that the solver has. */
export function randomChain(seed: number, bent: boolean): Patch {
  const random = stream(0xc4a1 ^ (seed * 7919));
  const between = (lo: number, hi: number): number => Number((lo + (hi - lo) * random()).toFixed(3));
  const pick = <T>(list: readonly T[]): T => list[Math.floor(random() * list.length)] as T;
  const parts: Record<string, Link> = { swell: ['lfo', { lowVolts: between(-5, 0), highVolts: between(2, 6) }] };
  const cables: string[] = [];
  let from = 'swell.out';
  const count = 1 + Math.floor(random() * 3);
  const bends = bent ? Math.floor(random() * count) : -1;
  for (let i = 0; i < count; i++) {
    const kind = i === bends ? pick(BENT) : pick(STRAIGHT);
    const id = `s${i}`;
    parts[id] = [kind, stageParams(kind, between)];
    const socket = kind === 'mixer' ? 'in1' : kind === 'ringMod' ? 'a' : kind === 'vca' ? 'cv' : 'in';
    cables.push(`${from} > ${id}.${socket}`);
    if (kind === 'ringMod' || kind === 'vca') {
      parts[`c${i}`] = ['constant', { volts: between(2, 5) }];
      cables.push(`c${i}.out > ${id}.${kind === 'vca' ? 'in' : 'b'}`);
    }
    from = `${id}.out`;
  }
  const [end, socket] = pick(ENDS);
  parts.end = [end, end === 'crossfade' ? { cvAmount: between(0.2, 1) } : {}];
  cables.push(`${from} > end.${socket}`);
  return patchOf(parts, cables, { duration: 1, railVolts: 12 });
}

function stageParams(kind: string, between: (lo: number, hi: number) => number): Params {
  const signed = (): number => (between(0, 1) > 0.5 ? 1 : -1) * between(0.2, 0.9);
  switch (kind) {
    case 'attenuator':
      return { amount: between(0.2, 0.9) };
    case 'attenuverter':
      return { amount: signed() };
    case 'offset':
      return { amount: signed(), volts: between(-2, 2) };
    case 'mixer':
      return { inputs: 2, gain1: between(0.3, 0.9), biasVolts: between(-1, 1) };
    case 'shaper':
      return { gain: between(0.5, 2), clipVolts: between(3, 8), knee: 'soft' };
    case 'ringMod':
      return { coupling: 'dc' };
    case 'vca':
      return { bias: between(0.5, 2), cvAmount: between(0.2, 0.6), response: between(0, 1) };
    case 'polarizer':
      return { gain: between(0.3, 1.2), biasAmount: between(-0.4, 0.4) };
    default:
      return {};
  }
}

/** What a patch reads at its end, as a range in volts: one that its own knobs are an answer to. */
export function rangeOf(patch: Patch): Target | null {
  const reading = predict(patch, { simulation: false }).readings.find((r) => r.at.startsWith('end.'));
  if (!reading) return null;
  const [low, high] = reading.driveVolts;
  return { at: reading.at, quantity: 'volts', low, high };
}

/** The same patch with every knob of its stages somewhere else. */
export function scattered(
  patch: Patch,
  seed: number,
  knobs: readonly { id: string; param: string; min: number; max: number }[],
): Patch {
  const random = stream(seed);
  const modules = patch.modules.map((m) => {
    const own = knobs.filter((k) => k.id === m.id);
    const params = Object.fromEntries(own.map((k) => [k.param, k.min + (k.max - k.min) * (0.1 + 0.8 * random())]));
    return own.length > 0 ? { ...m, params: { ...m.params, ...params } } : m;
  });
  return { ...patch, modules };
}
