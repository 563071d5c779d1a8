import { always, kind, never } from './kind';
import { choice, number } from './params';
import { draw } from './random';
import { showVolts } from '../units/show';

/** The peak that 99.9% of a colour's unscaled samples stay within: measured over ten million samples. */
const WITHIN = { pink: 6.27, red: 32.1 } as const;

/** Pink from white: a sum of first-order lags an octave or two apart (Kellet's weights, within 0.05 dB above 9 Hz at 44.1 kHz). */
function pinkFilter(): (white: number) => number {
  const poles = [0.99886, 0.99332, 0.969, 0.8665, 0.55, -0.7616];
  const gains = [0.0555179, 0.0750759, 0.153852, 0.3104856, 0.5329522, -0.016898];
  const state = new Float64Array(poles.length);
  let last = 0;
  return (white) => {
    let sum = last + white * 0.5362;
    for (let i = 0; i < poles.length; i++) {
      const s = (poles[i] as number) * (state[i] as number) + (gains[i] as number) * white;
      state[i] = s;
      sum += s;
    }
    last = white * 0.115926;
    return sum;
  };
}

/** Red from white: a leaky sum, so that it stays about 0. */
function redFilter(): (white: number) => number {
  let sum = 0;
  return (white) => (sum = 0.998 * sum + white);
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
    const { filter } = wiring.keep(colour, () => ({ filter: colour === 'pink' ? pinkFilter() : redFilter() }));
    const scale = p.peakVolts / WITHIN[p.colour];
    return (from, to, k0) => {
      for (let i = from; i < to; i++) {
        const v = scale * filter(draw(seed, k0 + i));
        out[i] = Math.min(p.peakVolts, Math.max(-p.peakVolts, v));
      }
    };
  },
});
