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
    name: 'Three-input mixer',
    says: 'three-input mixer with an inverted output',
    hp: 4,
    channels: single({
      kind: 'mixer',
      fixed: { inputs: 3, bipolar: false, maxGain: 1, law: 'sum', biasVolts: 0, inverting: false },
      ...out,
    }),
  },
  {
    type: 'mixer-4-bias',
    name: 'Four-input bipolar mixer with offset',
    says: 'four bipolar inputs plus a ±5 V offset knob',
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
    name: 'Dual two-input mixer',
    says: 'two two-input mixers, always inverting',
    hp: 6,
    channels: channels(2, {
      kind: 'mixer',
      fixed: { inputs: 2, bipolar: false, maxGain: 1, law: 'sum', biasVolts: 0, inverting: true },
      ...out,
    }),
  },
  {
    type: 'mixer-average-3',
    name: 'Averaging mixer',
    says: 'the average of the connected inputs',
    hp: 4,
    channels: single({
      kind: 'mixer',
      fixed: { inputs: 3, bipolar: false, maxGain: 1, law: 'average', biasVolts: 0, inverting: false },
      ...out,
    }),
  },
  {
    type: 'mixer-6-hot',
    name: 'Six-input mixer, ×2',
    says: 'six inputs with up to twice the gain',
    hp: 12,
    channels: single({
      kind: 'mixer',
      fixed: { inputs: 6, bipolar: false, maxGain: 2, law: 'sum', biasVolts: 0, inverting: false },
      ...out,
    }),
  },
  {
    type: 'vca-1-5v',
    name: 'VCA, 5 V',
    says: 'unity gain at 5 V; response from linear to exponential',
    hp: 6,
    channels: single({
      kind: 'vca',
      fixed: { unityVolts: 5, deadVolts: 0, quadrants: 2, coupling: 'dc', maxGain: 2, boostDb: 0, limitVolts: null },
      ...amp,
    }),
  },
  {
    type: 'vca-2-8v',
    name: 'Dual VCA, 8 V',
    says: 'unity gain at 8 V; linear/exponential switch, no level knob',
    hp: 6,
    channels: channels(2, {
      kind: 'vca',
      fixed: {
        unityVolts: 8,
        deadVolts: 0,
        bias: 0,
        quadrants: 2,
        coupling: 'dc',
        maxGain: 2,
        boostDb: 0,
        limitVolts: null,
      },
      choices: { response: [0, 1] },
      ...amp,
    }),
  },
  {
    type: 'vca-4-cascade',
    name: 'Quad cascading VCA',
    says: 'unity at 5 V; each CV is normalled to the previous one, each output sums into the next',
    hp: 12,
    channels: channels(4, (i) => ({
      kind: 'vca',
      fixed: { unityVolts: 5, deadVolts: 0, quadrants: 2, coupling: 'dc', maxGain: 2, boostDb: 0, limitVolts: null },
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
    name: 'VCA, 10 V',
    says: 'exponential; needs the full 10 V',
    hp: 4,
    channels: single({
      kind: 'vca',
      fixed: {
        unityVolts: 10,
        deadVolts: 0,
        response: 1,
        quadrants: 2,
        coupling: 'dc',
        maxGain: 1,
        boostDb: 0,
        limitVolts: null,
      },
      ...amp,
    }),
  },
  {
    type: 'vca-4-quadrant',
    name: 'Four-quadrant VCA',
    says: 'multiplies below 0 V too',
    hp: 6,
    channels: single({
      kind: 'vca',
      fixed: {
        unityVolts: 5,
        deadVolts: 0,
        quadrants: 4,
        response: 0,
        coupling: 'dc',
        maxGain: 2,
        boostDb: 0,
        limitVolts: null,
      },
      ...amp,
    }),
  },
  {
    type: 'ring-1',
    name: 'Ring modulator',
    says: 'ring modulator, AC/DC switch',
    hp: 4,
    channels: single({ kind: 'ringMod', fixed: { scaleVolts: 5 }, choices: { coupling: ['ac', 'dc'] }, ...out }),
  },
  {
    type: 'crossfade-2',
    name: 'Dual crossfader',
    says: 'from one input to the other by a CV',
    hp: 8,
    channels: channels(2, { kind: 'crossfade', ...out }),
  },
  {
    type: 'lpg-2',
    name: 'Dual low-pass gate',
    says: 'open level and brightness together',
    hp: 6,
    channels: channels(2, { kind: 'lowPassGate', fixed: { unityVolts: 5 }, ...out }),
  },
];
