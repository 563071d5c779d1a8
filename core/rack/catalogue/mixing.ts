import { before, channels, single } from './type';
import type { ModuleType } from './type';

const printed = { scale: [0, 10] } as const;
const gains = { gain1: printed, gain2: printed, gain3: printed, gain4: printed } as const;
const out = { outputOhms: { out: 1000 } } as const;
const amp = { inputOhms: { in: 100_000, cv: 100_000 }, outputOhms: { out: 1000 } } as const;

/** What adds and what multiplies. */
export const mixingTypes: readonly ModuleType[] = [
  {
    type: 'mixer-3',
    name: 'Three to one',
    says: 'a plain mixer of three, with a negated output',
    hp: 4,
    channels: single({
      kind: 'mixer',
      fixed: { inputs: 3, bipolar: false, maxGain: 1, law: 'sum', biasVolts: 0, inverting: false },
      ...out,
    }),
  },
  {
    type: 'mixer-4-bias',
    name: 'Four to one with bias',
    says: 'a bipolar mixer of four whose bias knob lifts the sum by ±5 V',
    hp: 8,
    channels: single({
      kind: 'mixer',
      fixed: { inputs: 4, bipolar: true, maxGain: 1, law: 'sum', inverting: false },
      ranges: { biasVolts: [-5, 5] },
      knobs: gains,
      ...out,
    }),
  },
  {
    type: 'mixer-2-double',
    name: 'Two small mixers',
    says: 'two mixers of two, which always invert',
    hp: 6,
    channels: channels(2, {
      kind: 'mixer',
      fixed: { inputs: 2, bipolar: false, maxGain: 1, law: 'sum', biasVolts: 0, inverting: true },
      ...out,
    }),
  },
  {
    type: 'mixer-average-3',
    name: 'Averager',
    says: 'the mean of what is plugged in',
    hp: 4,
    channels: single({
      kind: 'mixer',
      fixed: { inputs: 3, bipolar: false, maxGain: 1, law: 'average', biasVolts: 0, inverting: false },
      ...out,
    }),
  },
  {
    type: 'mixer-6-hot',
    name: 'Six to one, hot',
    says: 'a mixer of six that amplifies up to twice',
    hp: 12,
    channels: single({
      kind: 'mixer',
      fixed: { inputs: 6, bipolar: false, maxGain: 2, law: 'sum', biasVolts: 0, inverting: false },
      ...out,
    }),
  },
  {
    type: 'vca-1-5v',
    name: 'One amplifier, 5 V',
    says: 'open at 5 V, from linear to exponential',
    hp: 6,
    channels: single({
      kind: 'vca',
      fixed: { unityVolts: 5, quadrants: 2, coupling: 'dc', maxGain: 2, boostDb: 0, limitVolts: null },
      ...amp,
    }),
  },
  {
    type: 'vca-2-8v',
    name: 'Two amplifiers, 8 V',
    says: 'open at 8 V, linear or exponential by a switch, without a level knob',
    hp: 6,
    channels: channels(2, {
      kind: 'vca',
      fixed: { unityVolts: 8, bias: 0, quadrants: 2, coupling: 'dc', maxGain: 2, boostDb: 0, limitVolts: null },
      choices: { response: [0, 1] },
      ...amp,
    }),
  },
  {
    type: 'vca-4-cascade',
    name: 'Four amplifiers in a row',
    says: 'open at 5 V; each control is normalled to the one before it, each output adds to the next',
    hp: 12,
    channels: channels(4, (i) => ({
      kind: 'vca',
      fixed: { unityVolts: 5, quadrants: 2, coupling: 'dc', maxGain: 2, boostDb: 0, limitVolts: null },
      choices: { response: [0, 1] },
      ...(i > 0 && {
        normals: [
          { to: 'cv', from: `${before(i)}.cv` },
          { to: 'chain', from: `${before(i)}.out`, brokenBy: 'source' },
        ],
      }),
      ...amp,
    })),
  },
  {
    type: 'vca-10v-exponential',
    name: 'One amplifier, 10 V',
    says: 'exponential, wants its whole 10 V',
    hp: 4,
    channels: single({
      kind: 'vca',
      fixed: { unityVolts: 10, response: 1, quadrants: 2, coupling: 'dc', maxGain: 1, boostDb: 0, limitVolts: null },
      ...amp,
    }),
  },
  {
    type: 'vca-4-quadrant',
    name: 'Four-quadrant amplifier',
    says: 'multiplies below zero too',
    hp: 6,
    channels: single({
      kind: 'vca',
      fixed: { unityVolts: 5, quadrants: 4, response: 0, coupling: 'dc', maxGain: 2, boostDb: 0, limitVolts: null },
      ...amp,
    }),
  },
  {
    type: 'ring-1',
    name: 'Ring modulator',
    says: 'a product of two, AC or DC coupled by a switch',
    hp: 4,
    channels: single({ kind: 'ringMod', fixed: { scaleVolts: 5 }, choices: { coupling: ['ac', 'dc'] }, ...out }),
  },
  {
    type: 'crossfade-2',
    name: 'Two crossfaders',
    says: 'from one input to the other by a voltage',
    hp: 8,
    channels: channels(2, { kind: 'crossfade', ...out }),
  },
  {
    type: 'lpg-2',
    name: 'Two low-pass gates',
    says: 'open in loudness and brightness together',
    hp: 6,
    channels: channels(2, { kind: 'lowPassGate', fixed: { unityVolts: 5 }, ...out }),
  },
];
