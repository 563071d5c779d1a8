import { always, kind, never } from './kind';
import { flag, number, text } from './params';

export const recording = kind({
  name: 'recording',
  title: 'Recording',
  does: 'plays an imported trace',
  formula:
    'out = gain·trace, by linear interpolation at the patch’s rate; 0 V before, after, and where the asset is missing; its bound is the rails',
  room: 'source',
  unracked: 'always',
  plays: 'assetId',
  audio: true,
  params: { assetId: text('', 200), gain: number(1, 0, 20), loop: flag(false) },
  brief: (p) => p.assetId || 'no recording chosen',
  inputs: () => [],
  outputs: () => ['out'],
  audible: true,
  runs: always,
  scaledBy: () => ['gain'],
  memory: never,
  free: always,
  period: () => 'never',
  law: (_b, _p, io) => ({ out: io.symbol('out', -Infinity, Infinity) }),
  kernel(p, wiring) {
    const out = wiring.output('out');
    const asset = p.assetId ? wiring.asset(p.assetId) : null;
    if (!asset || asset.volts.length === 0) return (from, to) => void out.fill(0, from, to);
    const { volts, sampleRate } = asset;
    const count = volts.length;
    const step = sampleRate / wiring.sampleRate;
    const state = wiring.keep('state', () => ({ begins: -1 }));
    return (from, to, k0) => {
      if (state.begins < 0) state.begins = k0 + from;
      for (let i = from; i < to; i++) {
        const at = (k0 + i - state.begins) * step;
        const n = Math.floor(at);
        const [a, b] = p.loop ? [n % count, (n + 1) % count] : [n, n + 1];
        const [va, vb] = [volts[a] ?? 0, volts[b] ?? 0];
        out[i] = p.gain * (va + (vb - va) * (at - n));
      }
    };
  },
});
