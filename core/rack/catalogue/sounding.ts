import { channels, single } from './type';
import type { ModuleType } from './type';

/** What sounds, and the ways in and out. */
export const soundingTypes: readonly ModuleType[] = [
  {
    type: 'oscillator-1',
    name: 'Oscillator',
    says: 'four waveforms of ±5 V, 1 V/oct',
    hp: 10,
    channels: single({ kind: 'oscillator', fixed: { lowVolts: -5, highVolts: 5 } }),
  },
  {
    type: 'oscillator-2',
    name: 'Dual VCO',
    says: 'two VCOs, the second’s pitch normalled to the first’s',
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
  {
    type: 'filter-1',
    name: 'Filter',
    says: 'low-pass, band-pass and high-pass',
    hp: 10,
    channels: single({ kind: 'filter', ranges: { resonance: [0, 1] } }),
  },
  {
    type: 'filter-2',
    name: 'Dual filter',
    says: 'two filters, the second’s input normalled to the first’s',
    hp: 14,
    channels: channels(2, (i) => ({
      kind: 'filter',
      ranges: { resonance: [0, 1] },
      ...(i > 0 && { normals: [{ to: 'in', from: 'a.in' }] }),
    })),
  },
  {
    type: 'filter-sings-1',
    name: 'Self-oscillating filter',
    says: 'low-pass, band-pass and high-pass; sings at its cutoff beyond resonance 1',
    hp: 10,
    channels: single({ kind: 'filter' }),
  },
  { type: 'delay-1', name: 'Echo', says: 'voltage-controlled delay', hp: 10, channels: single({ kind: 'delay' }) },
  { type: 'shaper-1', name: 'Waveshaper', says: 'wavefolder and clipper', hp: 6, channels: single({ kind: 'shaper' }) },
  {
    type: 'line-in-1',
    name: 'Line input',
    says: 'line level to modular level',
    hp: 4,
    channels: single({ kind: 'lineIn' }),
  },
  {
    type: 'line-out-2',
    name: 'Dual line output',
    says: 'modular to line level, DC-blocked',
    hp: 6,
    channels: channels(2, { kind: 'lineOut' }),
  },
];
