import { channels, single } from './type';
import type { ModuleType } from './type';

const out = { outputOhms: { out: 1000 } } as const;

/** What counts, steps, compares and holds. */
export const timingTypes: readonly ModuleType[] = [
  {
    type: 'clock-1',
    name: 'Clock',
    says: 'pulses of 0 to 5 V, 20 to 300 BPM',
    hp: 6,
    channels: single({ kind: 'clock', fixed: { lowVolts: 0, highVolts: 5 }, ranges: { bpm: [20, 300] }, ...out }),
  },
  {
    type: 'divider-2',
    name: 'Dual clock divider',
    says: 'one pulse out for every n in',
    hp: 4,
    channels: channels(2, { kind: 'divider', ...out }),
  },
  {
    type: 'logic-2',
    name: 'Dual logic',
    says: 'AND, OR, XOR, min and max',
    hp: 4,
    channels: channels(2, { kind: 'logic', ...out }),
  },
  {
    type: 'comparator-2',
    name: 'Dual comparator',
    says: '0 to 5 V gate while the input is above the threshold',
    hp: 4,
    channels: channels(2, { kind: 'comparator', fixed: { lowVolts: 0, highVolts: 5 }, ...out }),
  },
  {
    type: 'hold-2',
    name: 'Dual sample and hold',
    says: 'samples at each pulse, or tracks while a gate is high',
    hp: 4,
    channels: channels(2, { kind: 'sampleHold', fixed: { thresholdVolts: 1 }, ...out }),
  },
  {
    type: 'quantizer-1',
    name: 'Quantizer',
    says: 'to the notes of a scale, bipolar',
    hp: 8,
    channels: single({ kind: 'quantizer', fixed: { accepts: 'both' }, ...out }),
  },
  {
    type: 'quantizer-2-positive',
    name: 'Dual quantizer, positive only',
    says: 'to the notes of a scale, from 0 V up',
    hp: 6,
    channels: channels(2, { kind: 'quantizer', fixed: { accepts: 'positive' }, ...out }),
  },
  {
    type: 'sequencer-8',
    name: 'Step sequencer',
    says: 'steps through voltages on each clock, with 5 V gates',
    hp: 20,
    channels: single({ kind: 'sequencer', fixed: { gateVolts: 5 }, outputOhms: { cv: 1000, gate: 1000 } }),
  },
];
