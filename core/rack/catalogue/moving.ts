import { channels, single } from './type';
import type { ModuleType } from './type';

const out = { outputOhms: { out: 1000 } } as const;

/** A channel that a switch turns into a lag, an envelope, an LFO or a follower. */
const functionGenerator = {
  modes: [
    { kind: 'slew', fixed: { minimum: 0 } },
    { kind: 'envelope', fixed: { peakVolts: 8, restVolts: 0 }, choices: { mode: ['ar', 'ad', 'loop'] } },
    { kind: 'lfo', fixed: { lowVolts: 0, highVolts: 8 }, choices: { shape: ['triangle', 'rampUp', 'rampDown'] } },
    { kind: 'follower', fixed: { gain: 1 } },
  ],
  ...out,
};

/** What moves by itself or at a gate. */
export const movingTypes: readonly ModuleType[] = [
  {
    type: 'lfo-1',
    name: 'LFO',
    says: 'all waveforms, ±5 V, rate CV and reset',
    hp: 6,
    channels: single({ kind: 'lfo', fixed: { lowVolts: -5, highVolts: 5 }, ranges: { rateHz: [0.005, 100] }, ...out }),
  },
  {
    type: 'lfo-2',
    name: 'Dual LFO',
    says: 'two LFOs, ±5 V or 0 to 10 V by switch',
    hp: 8,
    channels: channels(2, {
      kind: 'lfo',
      choices: { lowVolts: [-5, 0], highVolts: [5, 10] },
      ranges: { rateHz: [0.01, 200] },
      ...out,
    }),
  },
  {
    type: 'lfo-4-triangle',
    name: 'Quad triangle LFO',
    says: 'four triangle LFOs of 0 to 8 V, each with its own rate',
    hp: 6,
    channels: channels(4, {
      kind: 'lfo',
      fixed: { shape: 'triangle', lowVolts: 0, highVolts: 8, mode: 'free', phase: 0, beats: null },
      ranges: { rateHz: [0.02, 30] },
      ...out,
    }),
  },
  {
    type: 'random-1',
    name: 'Random voltages',
    says: 'stepped or smooth random, ±5 V',
    hp: 6,
    channels: single({
      kind: 'lfo',
      fixed: { lowVolts: -5, highVolts: 5 },
      choices: { shape: ['stepped', 'smooth'] },
      ...out,
    }),
  },
  {
    type: 'envelope-adsr',
    name: 'ADSR envelope',
    says: 'attack, decay, sustain, release, 0 to 8 V',
    hp: 6,
    channels: single({ kind: 'envelope', fixed: { mode: 'adsr', peakVolts: 8, restVolts: 0 }, ...out }),
  },
  {
    type: 'envelope-adsr-2-5v',
    name: 'Dual ADSR envelope, 5 V',
    says: 'two ADSR envelopes, 0 to 5 V',
    hp: 10,
    channels: channels(2, { kind: 'envelope', fixed: { mode: 'adsr', peakVolts: 5, restVolts: 0 }, ...out }),
  },
  {
    type: 'envelope-ad-2',
    name: 'Dual AD envelope',
    says: 'attack/decay, one-shot or looping, 0 to 10 V',
    hp: 6,
    channels: channels(2, {
      kind: 'envelope',
      fixed: { peakVolts: 10, restVolts: 0 },
      choices: { mode: ['ad', 'loop'] },
      ...out,
    }),
  },
  {
    type: 'envelope-follows',
    name: 'Gate-level AR envelope',
    says: 'attack and release as high as the gate that starts it',
    hp: 4,
    channels: single({ kind: 'envelope', fixed: { mode: 'ar', restVolts: 0, followsLevel: true }, ...out }),
  },
  {
    type: 'function-1',
    name: 'Function generator',
    says: 'slew, envelope, LFO or follower, by switch',
    hp: 8,
    channels: single(functionGenerator),
  },
  {
    type: 'function-2',
    name: 'Dual function generator',
    says: 'two function generators',
    hp: 16,
    channels: channels(2, functionGenerator),
  },
  {
    type: 'slew-2',
    name: 'Dual slew limiter',
    says: 'linear or exponential slope, by switch',
    hp: 6,
    channels: channels(2, { kind: 'slew', choices: { law: ['linear', 'rc'] }, ...out }),
  },
  {
    type: 'follower-1',
    name: 'Envelope follower',
    says: 'the level of a sound, and a gate from it',
    hp: 4,
    channels: single({ kind: 'follower', ...out }),
  },
  {
    type: 'rectifier-2',
    name: 'Dual rectifier',
    says: 'full wave, positive half or negative half',
    hp: 4,
    channels: channels(2, { kind: 'rectifier', ...out }),
  },
];
