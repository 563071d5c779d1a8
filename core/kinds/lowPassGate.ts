import { isZero } from '../law/affine';
import { stateVariable } from './filter';
import { always, control, kind, signal } from './kind';
import { lagShare } from './response';
import { number, seconds, setUp } from './params';
import { dbOf } from '../units/ratios';
import { briefSeconds } from '../units/show';

const LOWEST_HZ = 20;
/** Three decades, in octaves. */
const SPAN = Math.log2(1000);

export const lowPassGate = kind({
  name: 'lowPassGate',
  title: 'Low-pass gate',
  does: 'opens level and brightness together',
  aliases: ['LPG', 'vactrol'],
  words: {
    params: { unityVolts: 'Fully open at', resonance: 'Resonance', lag: 'Response time' },
    says: { lag: 'vactrol lag' },
  },
  formula: 'u = clamp(cv/unityVolts, 0, 1) through an rc lag; out = u · lowpass at 20·1000^u Hz',
  category: 'between',
  panel: {
    howls: ['resonance'],
  },
  offered: 4,
  sound: {
    audioRate: true,
  },
  params: { unityVolts: setUp(number(5, 0.5, 12, 'V')), resonance: number(0.1, 0, 1), lag: seconds(0.02, 0, 1) },
  brief: (p) => `response ${briefSeconds(p.lag)}`,
  scale: { full: 'unityVolts' },
  inputs: () => [signal('in'), control('cv')],
  outputs: () => ['out'],
  memory: always,
  law(b, _p, io) {
    const shut = isZero(io.in('in')) || io.range(io.in('cv'))[1] <= 0;
    return { out: shut ? b.constant(0) : io.symbol('out', -Infinity, Infinity) };
  },
  kernel(p, wiring) {
    const [cv, out] = [wiring.input('cv'), wiring.output('out')];
    const share = lagShare(p.lag, wiring.sampleRate);
    const openings = wiring.scratch();
    const lowpass = wiring.scratch();
    const none = wiring.scratch().fill(0);
    const tuning = {
      a: openings,
      ka: SPAN,
      b: none,
      kb: 0,
      c: none,
      hertz: LOWEST_HZ,
      lowest: LOWEST_HZ,
      steady: false,
    };
    // Only the lowpass is wanted: the others go where nobody looks.
    const spare = wiring.scratch();
    const filter = stateVariable(wiring, tuning, p.resonance, { lowpass, bandpass: spare, highpass: spare });
    const open = wiring.kernels.products(openings, lowpass, out);
    const state = wiring.keep('state', () => ({ u: 0, begun: false }));
    return (from, to, k0) => {
      let { u } = state;
      for (let i = from; i < to; i++) {
        const wanted = Math.min(1, Math.max(0, (cv[i] as number) / p.unityVolts));
        u = state.begun ? u + (wanted - u) * share : wanted;
        state.begun = true;
        openings[i] = u;
      }
      state.u = u;
      filter(from, to, k0);
      open(from, to);
    };
  },
  stage: {
    gains: [
      {
        signals: ['in'],
        controls: ['cv'],
        gain(p, sampleRate) {
          const share = lagShare(p.lag, sampleRate);
          let u: number | null = null;
          return ([cv = 0]) => {
            const wanted = Math.min(1, Math.max(0, cv / p.unityVolts));
            u = u === null ? wanted : u + (wanted - u) * share;
            return u;
          };
        },
      },
    ],
  },
  ends: [
    {
      socket: 'cv',
      sockets: ['cv'],
      quantity: 'frequency',
      unit: () => 'Hz',
      always: true,
      says: 'closed at 0 V, fully open at its unity voltage',
      drive: (_b, _p, io) => io.in('cv'),
      value: (p, v) => LOWEST_HZ * 1000 ** Math.min(1, Math.max(0, v / p.unityVolts)),
      window: (p) => [0, p.unityVolts],
      pins: true,
    },
    {
      socket: 'cv',
      sockets: ['cv'],
      quantity: 'gain',
      further: true,
      unit: () => 'dB',
      always: true,
      says: 'how loud it is, beside how bright',
      drive: (_b, _p, io) => io.in('cv'),
      value: (p, v) => dbOf(Math.min(1, Math.max(0, v / p.unityVolts))),
      window: (p) => [0, p.unityVolts],
    },
  ],
});
