import { before, channels, single, usual } from './type';
import type { ModuleType } from './type';

const printed = { scale: [0, 10] } as const;
const both = { scale: [-5, 5] } as const;

/** What shrinks, flips and lifts. */
export const scalingTypes: readonly ModuleType[] = [
  {
    type: 'attenuator-passive-2',
    name: 'Two passive knobs',
    says: 'two plain pots of 100 kΩ, without power',
    hp: 2,
    channels: channels(2, { kind: 'attenuator', fixed: { build: 'passive', potOhms: 100_000 } }),
  },
  {
    type: 'attenuator-4',
    name: 'Four attenuators',
    says: 'four buffered attenuators, printed 0 to 10',
    hp: 4,
    channels: channels(4, { kind: 'attenuator', fixed: { build: 'active' }, knobs: { amount: printed }, ...usual }),
  },
  {
    type: 'attenuverter-1',
    name: 'One scaler',
    says: 'one attenuverter, its empty input normalled to +5 V',
    hp: 2,
    channels: single({
      kind: 'attenuverter',
      fixed: { maxAmount: 1 },
      normals: [{ to: 'in', volts: 5 }],
      knobs: { amount: both },
      ...usual,
    }),
  },
  {
    type: 'attenuverter-2',
    name: 'Two scalers',
    says: 'two attenuverters, a jumper for twice the reach',
    hp: 4,
    channels: channels(2, { kind: 'attenuverter', choices: { maxAmount: [1, 2] }, knobs: { amount: both }, ...usual }),
  },
  {
    type: 'attenuverter-4',
    name: 'Four scalers',
    says: 'four attenuverters, the first normalled to +5 V and each next one to the input before it',
    hp: 8,
    channels: channels(4, (i) => ({
      kind: 'attenuverter',
      fixed: { maxAmount: 1 },
      normals: i === 0 ? [{ to: 'in', volts: 5 }] : [{ to: 'in', from: `${before(i)}.in` }],
      knobs: { amount: both },
      ...usual,
    })),
  },
  {
    type: 'offset-1',
    name: 'Scale and lift',
    says: 'an attenuverter with a lift of ±5 V behind it',
    hp: 4,
    channels: single({ kind: 'offset', fixed: { maxAmount: 1, order: 'scaleThenShift' }, ...usual }),
  },
  {
    type: 'offset-2',
    name: 'Two scale and lift',
    says: 'two of them, empty inputs normalled to +5 V, jumpers for 1, 2 or 4 times',
    hp: 8,
    channels: channels(2, {
      kind: 'offset',
      fixed: { order: 'scaleThenShift' },
      choices: { maxAmount: [1, 2, 4] },
      normals: [{ to: 'in', volts: 5 }],
      ...usual,
    }),
  },
  {
    type: 'offset-10v',
    name: 'Wide lift',
    says: 'a lift of ±10 V before the scaling',
    hp: 4,
    channels: single({
      kind: 'offset',
      fixed: { maxAmount: 1, order: 'shiftThenScale', lowVolts: -10, highVolts: 10 },
      ...usual,
    }),
  },
  {
    type: 'inverter-2',
    name: 'Two inverters',
    says: 'two precise inverters',
    hp: 2,
    channels: channels(2, { kind: 'inverter', ...usual }),
  },
  {
    type: 'polarizer-2',
    name: 'Two polarizers',
    says: 'scale, bias and modulation in one, clipping at 10 V',
    hp: 10,
    channels: channels(2, { kind: 'polarizer', fixed: { unityVolts: 5 }, ranges: { gain: [-2, 2] }, ...usual }),
  },
  {
    type: 'fader-4',
    name: 'Four faders',
    says: 'four sliders that put out 0 to 5 V',
    hp: 8,
    channels: channels(4, {
      kind: 'constant',
      fixed: { lowVolts: 0, highVolts: 5 },
      knobs: { volts: printed },
      outputOhms: { out: 1000 },
    }),
  },
  {
    type: 'voltage-2',
    name: 'Two voltages',
    says: 'two knobs that put out −5 to +5 V',
    hp: 4,
    channels: channels(2, {
      kind: 'constant',
      fixed: { lowVolts: -5, highVolts: 5 },
      knobs: { volts: both },
      outputOhms: { out: 1000 },
    }),
  },
];
