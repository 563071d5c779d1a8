import { PatchBuilder } from '../build';
import { Seen } from '../seen';
import { tonesAt } from '../tones';
import { spectrumOf } from '../../simulate/spectrum';
import type { Skill } from '../types';

/** Between multiples of a tone nothing stands. */
const multipleOf = (hz: number, base: number): number => Math.round(hz / base);

export const clipHarmonic: Skill = {
  name: 'clip-harmonic',
  group: 'spectrum',
  text: 'Harmonic of a clip',
  draw(d, level) {
    const b = new PatchBuilder();
    const baseHz = d.pick(level < 3 ? [100, 200] : [110, 150, 180]);
    const even = level > 1 && d.chance(0.5);
    const tone = b.add('oscillator', 'Drone', { baseHz });
    const shaper = b.add('shaper', 'Edge', {
      gain: d.number(1.2, 2, 0.1),
      clipVolts: 5,
      ...(even && { biasVolts: d.pick([-4, 4]) }),
    });
    b.plug(`${tone}.sine`, `${shaper}.in`);
    const at = `${shaper}.out`;
    const patch = b.patch('Clip', { duration: 1.5, sampleRate: 48_000 });
    const seen = new Seen(patch, { traces: [at] });
    if (tonesAt(seen, at).length < 2) return null;
    const { peaks } = spectrumOf(seen.trace(at), seen.simulation.sampleRate);
    const [second] = peaks.filter((p) => multipleOf(p.hz, baseHz) > 1).toSorted((x, y) => y.volts - x.volts);
    if (!second) return null;
    const options = d.shuffled([2, 3, 4, 5]);
    const choice = options.indexOf(multipleOf(second.hz, baseHz));
    if (choice < 0) return null;
    return {
      patch,
      text: even
        ? `A sine of ${baseHz} Hz is clipped on one side more than on the other. Which new frequency is the loudest?`
        : `A sine of ${baseHz} Hz is clipped alike on both sides. Which new frequency is the loudest?`,
      at,
      answer: 'choice',
      choices: options.map((n) => ({ text: `${n * baseHz} Hz` })),
      truth: () => ({ choice }),
      slips: options.flatMap((n, i) =>
        i === choice
          ? []
          : [
              {
                text:
                  n % 2 === 0
                    ? 'Even harmonics need a wave that is not alike above and below.'
                    : 'Odd harmonics are strongest where both sides are alike, and the lowest first.',
                as: () => ({ choice: i }),
              },
            ],
      ),
    };
  },
};
