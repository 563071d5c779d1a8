import { keptGate } from './detect';
import { gate, kind } from './kind';
import { number, volts } from './params';
import { EDGE } from './phase';
import { showNumber } from '../units/show';

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
    'a pulse every 60/bpm·beats s from t = 0; each second one at swing of its pair; high for width of its own slot',
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
  inputs: () => [gate('reset')],
  outputs: () => ['out'],
  timing: {
    gates: ['out'],
  },
  source: {
    hertz: (p) => p.bpm / (60 * p.beats),
    free: (_, connected) => !connected('reset'),
    period: (p) => ({ over: [60, p.beats, p.swing === 0.5 ? 1 : 2], under: [p.bpm] }),
  },
  memory: (_, connected) => connected('reset'),
  law: (_b, p, io) => ({ out: io.symbol('out', p.lowVolts, p.highVolts) }),
  kernel(p, wiring) {
    const out = wiring.output('out');
    const reset = wiring.input('reset');
    const detector = keptGate(wiring, 'reset', 1);
    const rate = p.bpm / p.beats;
    const state = wiring.keep('state', () => ({ start: 0, rate }));
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
        const within = Math.max(0, pairs - Math.floor(pairs + EDGE));
        const second = within >= p.swing - EDGE;
        const slot = second ? 1 - p.swing : p.swing;
        const part = (second ? within - p.swing : within) / slot;
        out[i] = part < p.width - EDGE ? p.highVolts : p.lowVolts;
      }
    };
  },
});
