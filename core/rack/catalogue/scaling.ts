import { before, channels, single, usual } from './type';
import type { ModuleType } from './type';

const printed = { scale: [0, 10] } as const;
const both = { scale: [-5, 5] } as const;

/** What shrinks, inverts and offsets. */
export const scalingTypes: readonly ModuleType[] = [
  {
    type: 'attenuator-passive-2',
    name: 'Dual passive attenuator',
    says: 'two unpowered 100 kΩ pots, either way round',
    hp: 2,
    channels: channels(2, { kind: 'attenuator', fixed: { build: 'passive', potOhms: 100_000 } }),
  },
  {
    type: 'attenuator-4',
    name: 'Quad attenuator',
    says: 'four buffered attenuators, marked 0 to 10',
    hp: 4,
    channels: channels(4, {
      kind: 'attenuator',
      fixed: { build: 'active', reversed: false },
      knobs: { amount: printed },
      ...usual,
    }),
  },
  {
    type: 'attenuverter-1',
    name: 'Attenuverter',
    says: 'one attenuverter, input normalled to +5 V',
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
    name: 'Dual attenuverter',
    says: 'two attenuverters, ×1 or ×2 by jumper',
    hp: 4,
    channels: channels(2, { kind: 'attenuverter', choices: { maxAmount: [1, 2] }, knobs: { amount: both }, ...usual }),
  },
  {
    type: 'attenuverter-4',
    name: 'Quad attenuverter',
    says: 'four attenuverters; input 1 is normalled to +5 V, each other input to the one before',
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
    name: 'Scale and offset',
    says: 'an attenuverter followed by a ±5 V offset',
    hp: 4,
    channels: single({ kind: 'offset', fixed: { maxAmount: 1, order: 'scaleThenShift' }, ...usual }),
  },
  {
    type: 'offset-2',
    name: 'Dual scale and offset',
    says: 'two, inputs normalled to +5 V, ×1, ×2 or ×4 by jumper',
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
    name: 'Wide offset',
    says: '±10 V offset before the gain',
    hp: 4,
    channels: single({
      kind: 'offset',
      fixed: { maxAmount: 1, order: 'shiftThenScale', lowVolts: -10, highVolts: 10 },
      ...usual,
    }),
  },
  {
    type: 'inverter-2',
    name: 'Dual inverter',
    says: 'two precision inverters',
    hp: 2,
    channels: channels(2, { kind: 'inverter', ...usual }),
  },
  {
    type: 'polarizer-2',
    name: 'Dual polarizer',
    says: 'gain, offset and modulation in one, clipping at 10 V',
    hp: 10,
    channels: channels(2, { kind: 'polarizer', fixed: { unityVolts: 5 }, ranges: { gain: [-2, 2] }, ...usual }),
  },
  {
    type: 'fader-4',
    name: 'Quad fader',
    says: 'four faders, 0 to 5 V out',
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
    name: 'Dual voltage source',
    says: 'two knobs, −5 to +5 V out',
    hp: 4,
    channels: channels(2, {
      kind: 'constant',
      fixed: { lowVolts: -5, highVolts: 5 },
      knobs: { volts: both },
      outputOhms: { out: 1000 },
    }),
  },
];
