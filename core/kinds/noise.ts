import { always, kind, never } from './kind';
import { choice, number } from './params';
import { draw } from './random';
import { showVolts } from '../units/show';

/** The peak that 99.9% of a colour's unscaled samples stay within: measured over ten million samples. */
const WITHIN = { pink: 6.27, red: 32.1 } as const;

const POLES = [0.99886, 0.99332, 0.969, 0.8665, 0.55, -0.7616];
const GAINS = [0.0555179, 0.0750759, 0.153852, 0.3104856, 0.5329522, -0.016898];

/** Pink from white: a sum of first-order lags an octave or two apart (Kellet's weights, within 0.05 dB above 9 Hz at 44.1 kHz). */
class PinkFilter {
  private readonly state = new Float64Array(POLES.length);
  private last = 0;

  next(white: number): number {
    const { state } = this;
    let sum = this.last + white * 0.5362;
    for (let i = 0; i < POLES.length; i++) {
      const s = (POLES[i] as number) * (state[i] as number) + (GAINS[i] as number) * white;
      state[i] = s;
      sum += s;
    }
    this.last = white * 0.115926;
    return sum;
  }
}

class RedFilter {
  private sum = 0;

  next(white: number): number {
    return (this.sum = 0.998 * this.sum + white);
  }
}

export const noise = kind({
  name: 'noise',
  title: 'Noise',
  does: 'white, pink or red noise',
  aliases: ['random'],
  words: {
    params: { colour: 'Colour', peakVolts: 'Peak level' },
    options: { colour: { white: 'White', pink: 'Pink', red: 'Red' } },
  },
  formula: 'white: uniform in ±peakVolts; pink, red: filtered, 99.9% within ±peakVolts, clipped there',
  category: 'source',
  sound: {
    audioRate: true,
    audible: true,
  },
  params: { colour: choice(['white', 'pink', 'red']), peakVolts: number(5, 0, 12, 'V') },
  brief: (p) => `${p.colour}, ±${showVolts(p.peakVolts, false)}`,
  inputs: () => [],
  outputs: () => ['out'],
  source: {
    runs: always,
    draws: always,
    free: always,
    period: (p) => (p.peakVolts === 0 ? 'none' : 'never'),
  },
  panel: {
    scaledBy: () => ['peakVolts'],
  },
  memory: never,
  law: (_b, p, io) => ({ out: io.symbol('out', -p.peakVolts, p.peakVolts) }),
  kernel(p, wiring) {
    const out = wiring.output('out');
    const { seed } = wiring;
    if (p.colour === 'white') {
      return (from, to, k0) => {
        for (let i = from; i < to; i++) out[i] = p.peakVolts * draw(seed, k0 + i);
      };
    }
    const { colour } = p;
    const filter = wiring.keep(colour, () => (colour === 'pink' ? new PinkFilter() : new RedFilter()));
    const scale = p.peakVolts / WITHIN[p.colour];
    return (from, to, k0) => {
      for (let i = from; i < to; i++) {
        const v = scale * filter.next(draw(seed, k0 + i));
        out[i] = Math.min(p.peakVolts, Math.max(-p.peakVolts, v));
      }
    };
  },
});
