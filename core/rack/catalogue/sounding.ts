import { channels, single } from './type';
import type { ModuleType } from './type';

/** What sounds, and the ways in and out. */
export const soundingTypes: readonly ModuleType[] = [
  {
    type: 'oscillator-1',
    name: 'Oscillator',
    says: 'four waves of ±5 V, one volt an octave',
    hp: 10,
    channels: single({ kind: 'oscillator', fixed: { lowVolts: -5, highVolts: 5 } }),
  },
  {
    type: 'oscillator-2',
    name: 'Two oscillators',
    says: 'two of them, the second’s pitch normalled to the first’s',
    hp: 16,
    channels: channels(2, (i) => ({
      kind: 'oscillator',
      fixed: { lowVolts: -5, highVolts: 5 },
      ...(i > 0 && { normals: [{ to: 'pitch', from: 'a.pitch' }] }),
    })),
  },
  {
    type: 'noise-1',
    name: 'Noise',
    says: 'white, pink or red',
    hp: 4,
    channels: single({ kind: 'noise', fixed: { peakVolts: 5 }, outputOhms: { out: 1000 } }),
  },
  { type: 'filter-1', name: 'Filter', says: 'low, band and high pass', hp: 10, channels: single({ kind: 'filter' }) },
  {
    type: 'filter-2',
    name: 'Two filters',
    says: 'two of them, the second’s input normalled to the first’s',
    hp: 14,
    channels: channels(2, (i) => ({ kind: 'filter', ...(i > 0 && { normals: [{ to: 'in', from: 'a.in' }] }) })),
  },
  { type: 'delay-1', name: 'Echo', says: 'a delay by voltage', hp: 10, channels: single({ kind: 'delay' }) },
  { type: 'shaper-1', name: 'Wave shaper', says: 'bends and clips', hp: 6, channels: single({ kind: 'shaper' }) },
  {
    type: 'line-in-1',
    name: 'Line input',
    says: 'from line level up to the rack’s',
    hp: 4,
    channels: single({ kind: 'lineIn' }),
  },
  {
    type: 'line-out-2',
    name: 'Two line outputs',
    says: 'down to line level, without constant voltage',
    hp: 6,
    channels: channels(2, { kind: 'lineOut' }),
  },
];
