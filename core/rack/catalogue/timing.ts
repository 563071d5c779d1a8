import { channels, single } from './type';
import type { ModuleType } from './type';

const out = { outputOhms: { out: 1000 } } as const;

/** What counts, steps, compares and holds. */
export const timingTypes: readonly ModuleType[] = [
  {
    type: 'clock-1',
    name: 'Clock',
    says: 'pulses of 0 to 5 V, 20 to 300 a minute',
    hp: 6,
    channels: single({ kind: 'clock', fixed: { lowVolts: 0, highVolts: 5 }, ranges: { bpm: [20, 300] }, ...out }),
  },
  {
    type: 'divider-2',
    name: 'Two clock dividers',
    says: 'every so many pulses one',
    hp: 4,
    channels: channels(2, { kind: 'divider', ...out }),
  },
  {
    type: 'logic-2',
    name: 'Two logic gates',
    says: 'and, or and their like',
    hp: 4,
    channels: channels(2, { kind: 'logic', ...out }),
  },
  {
    type: 'comparator-2',
    name: 'Two comparators',
    says: 'a gate of 0 to 5 V above a level',
    hp: 4,
    channels: channels(2, { kind: 'comparator', fixed: { lowVolts: 0, highVolts: 5 }, ...out }),
  },
  {
    type: 'hold-2',
    name: 'Two sample and hold',
    says: 'holds at each pulse, or follows while a gate is high',
    hp: 4,
    channels: channels(2, { kind: 'sampleHold', fixed: { thresholdVolts: 1 }, ...out }),
  },
  {
    type: 'quantizer-1',
    name: 'Quantizer',
    says: 'to notes of a scale, below 0 V too',
    hp: 8,
    channels: single({ kind: 'quantizer', fixed: { accepts: 'both' }, ...out }),
  },
  {
    type: 'quantizer-2-positive',
    name: 'Two positive quantizers',
    says: 'to notes of a scale, from 0 V up',
    hp: 6,
    channels: channels(2, { kind: 'quantizer', fixed: { accepts: 'positive' }, ...out }),
  },
  {
    type: 'sequencer-8',
    name: 'Step sequencer',
    says: 'steps through voltages at a clock, with gates of 5 V',
    hp: 20,
    channels: single({ kind: 'sequencer', fixed: { gateVolts: 5 }, outputOhms: { cv: 1000, gate: 1000 } }),
  },
];
