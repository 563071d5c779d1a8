import { keptGate } from './detect';
import { control, gate, kind } from './kind';
import { number, volts } from './params';
import { EDGE, Phase, withinCycle } from './phase';
import { exp2 } from '../law/fastmath';
import { showNumber } from '../units/show';
import { rateEnd } from './rateEnd';

interface Tempo {
  readonly bpm: number;
  readonly beats: number;
}

/** Pulses a second while the rate input stands at a voltage. */
const pulsesAt = ({ bpm, beats }: Tempo, volts: number): number =>
  Math.min(20000, Math.max(0.0001, (bpm * exp2(volts)) / (60 * beats)));

export const clock = kind({
  name: 'clock',
  title: 'Clock',
  does: 'steady pulses with optional swing',
  aliases: ['trigger', 'tempo', 'BPM'],
  words: {
    params: {
      bpm: 'Tempo',
      beats: 'Period (beats)',
      width: 'Pulse width',
      swing: 'Swing',
      lowVolts: 'Low level',
      highVolts: 'High level',
    },
    says: { bpm: 'uses the patch tempo unless set' },
  },
  formula:
    'a pulse every 60/bpm·beats s from t = 0; each second one at swing of its pair; high for width of its own slot; rate: one volt doubles bpm, 0.0001 to 20 000 pulses a second',
  category: 'source',
  params: {
    bpm: number(120, 1, 999, 'bpm', { fromSetting: 'bpm' }),
    beats: number(1, 1 / 64, 64, 'beats', { taper: 'log' }),
    width: number(0.5, 0.01, 0.99),
    swing: number(0.5, 0.5, 0.75),
    lowVolts: volts(0),
    highVolts: volts(5),
  },
  panel: {
    below: [['lowVolts', 'highVolts']],
    scaledBy: () => ['lowVolts', 'highVolts'],
  },
  brief: (p) => `${showNumber(p.bpm, 0)} BPM${p.beats === 1 ? '' : ` · ${showNumber(p.beats, 2)}`}`,
  scale: { rates: ['bpm'] },
  inputs: () => [gate('reset'), control('rate')],
  outputs: () => ['out'],
  timing: {
    gates: ['out'],
  },
  source: {
    hertz: (p) => p.bpm / (60 * p.beats),
    free: (_, connected) => !connected('reset'),
    period(p, { steady }) {
      const cv = steady('rate');
      const every = p.swing === 0.5 ? 1 : 2;
      if (cv === 0) return { over: [60, p.beats, every], under: [p.bpm] };
      return cv === null ? 'never' : { over: [every], under: [pulsesAt(p, cv)] };
    },
  },
  memory: (_, connected) => connected('reset') || connected('rate'),
  law: (_b, p, io) => ({ out: io.symbol('out', p.lowVolts, p.highVolts) }),
  kernel(p, wiring) {
    const out = wiring.output('out');
    const [reset, rateIn] = [wiring.input('reset'), wiring.input('rate')];
    const detector = keptGate(wiring, 'reset', 1);
    const rate = p.bpm / p.beats;
    const state = wiring.keep('state', () => ({ start: 0, rate }));
    const levelAt = (within: number): number => {
      const second = within >= p.swing - EDGE;
      const slot = second ? 1 - p.swing : p.swing;
      const part = (second ? within - p.swing : within) / slot;
      return part < p.width - EDGE ? p.highVolts : p.lowVolts;
    };
    if (wiring.steady('rate') !== 0) {
      const phase = wiring.keep('phase', () => new Phase(wiring.sampleRate, 0));
      return (from, to, k0) => {
        for (let i = from; i < to; i++) {
          const pairsPerSecond = pulsesAt(p, rateIn[i] as number) / 2;
          const edge = detector.rises(reset[i] as number);
          const cycles = edge ? phase.reset(k0 + i, 0, pairsPerSecond) : phase.at(k0 + i, pairsPerSecond);
          out[i] = levelAt(withinCycle(cycles));
        }
      };
    }
    return (from, to, k0) => {
      // At another tempo it goes on from where it is in its pair.
      if (state.rate !== rate) {
        state.start = k0 + from - ((k0 + from - state.start) * state.rate) / rate;
        state.rate = rate;
      }
      for (let i = from; i < to; i++) {
        const k = k0 + i;
        if (detector.rises(reset[i] as number)) state.start = k;
        // Products of whole numbers first: an edge that falls on a sample must not miss it by a rounding.
        const pairs = ((k - state.start) * p.bpm) / (120 * wiring.sampleRate * p.beats);
        out[i] = levelAt(withinCycle(pairs));
      }
    };
  },
  ends: [rateEnd('each volt doubles the tempo', pulsesAt)],
});
