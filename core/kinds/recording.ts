import { always, kind, never } from './kind';
import { flag, number, text } from './params';

/** As far as any rails go, volts. */
const MOST = 24;

/** What imported voltages reach, for `lowVolts` and `highVolts`: rounded outward to the millivolt. */
export function rangeOfTrace(volts: ArrayLike<number>): { readonly lowVolts: number; readonly highVolts: number } {
  let [low, high] = [Infinity, -Infinity];
  for (let i = 0; i < volts.length; i++) {
    const v = volts[i] as number;
    if (v < low) low = v;
    if (v > high) high = v;
  }
  if (low > high) return { lowVolts: -MOST, highVolts: MOST };
  const lowVolts = Math.max(-MOST, Math.min(MOST - 0.001, Math.floor(low * 1000) / 1000));
  return { lowVolts, highVolts: Math.min(MOST, Math.max(lowVolts + 0.001, Math.ceil(high * 1000) / 1000)) };
}

export const recording = kind({
  name: 'recording',
  title: 'Recording',
  does: 'plays an imported file',
  aliases: ['sample', 'WAV'],
  words: {
    params: {
      assetId: 'Recording',
      fileName: 'File name',
      gain: 'Gain',
      loop: 'Loop',
      lowVolts: 'Minimum',
      highVolts: 'Maximum',
    },
    says: { lowVolts: 'the least voltage in the recording', highVolts: 'the greatest voltage in the recording' },
  },
  formula:
    'out = gain·trace, held to lowVolts and highVolts, by linear interpolation at the patch’s rate; 0 V before, after, and where the asset is missing',
  category: 'source',
  electrical: {
    unracked: 'always',
  },
  panel: {
    plays: 'assetId',
    below: [['lowVolts', 'highVolts']],
    scaledBy: () => ['gain'],
  },
  sound: {
    audioRate: true,
    audible: true,
  },
  params: {
    assetId: text('', 200),
    fileName: text('', 200),
    gain: number(1, 0, 20),
    loop: flag(false),
    lowVolts: number(-MOST, -MOST, MOST, 'V'),
    highVolts: number(MOST, -MOST, MOST, 'V'),
  },
  brief: (p) => p.fileName || (p.assetId ? 'an imported file' : 'no recording chosen'),
  inputs: () => [],
  outputs: () => ['out'],
  source: {
    runs: always,
    free: always,
    period: () => 'never',
  },
  memory: never,
  law: (_b, p, io) => {
    const [low, high] = [Math.min(0, p.lowVolts), Math.max(0, p.highVolts)];
    return { out: io.symbol('out', p.gain * low, p.gain * high) };
  },
  kernel(p, wiring) {
    const out = wiring.output('out');
    const asset = p.assetId ? wiring.asset(p.assetId) : null;
    if (!asset || asset.volts.length === 0) return (from, to) => void out.fill(0, from, to);
    const { volts, sampleRate } = asset;
    const count = volts.length;
    const step = sampleRate / wiring.sampleRate;
    const held = (v: number): number => Math.min(p.highVolts, Math.max(p.lowVolts, v));
    const state = wiring.keep('state', () => ({ begins: -1 }));
    return (from, to, k0) => {
      if (state.begins < 0) state.begins = k0 + from;
      for (let i = from; i < to; i++) {
        const at = (k0 + i - state.begins) * step;
        const n = Math.floor(at);
        const [a, b] = p.loop ? [n % count, (n + 1) % count] : [n, n + 1];
        const [va, vb] = [held(volts[a] ?? 0), held(volts[b] ?? 0)];
        out[i] = p.gain * (va + (vb - va) * (at - n));
      }
    };
  },
});
