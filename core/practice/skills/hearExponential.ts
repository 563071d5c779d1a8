import { PatchBuilder } from '../build';
import { set } from '../chain';
import { earSkill, whichIsIt } from '../ears';

/** By level, how far towards exponential the response is. */
const RESPONSE = { 1: 1, 2: 0.8, 3: 0.65, 4: 0.5, 5: 0.4 } as const;

export const hearExponential = earSkill('hear-exponential', 'Which is exponential', (d, level) => {
  const b = new PatchBuilder();
  const key = b.add('clock', 'Key', { bpm: d.pick([60, 80, 100]), width: 0.5 });
  const bell = b.add('envelope', 'Bell', {
    mode: 'ar',
    attack: 0.01,
    release: 0.3,
    decayCurve: 0,
    attackCurve: 0,
    peakVolts: 5,
  });
  const tone = b.add('oscillator', 'Drone', { baseHz: d.pick([110, 146.832, 220]) });
  const beam = b.add('vca', 'Beam', { unityVolts: 5 });
  const pier = b.add('lineOut', 'Pier', { padDb: 12, dcBlock: true });
  b.plug(`${key}.out`, `${bell}.gate`).plug(`${bell}.out`, `${beam}.cv`).plug(`${tone}.saw`, `${beam}.in`);
  const patch = b.plug(`${beam}.out`, `${pier}.left`).patch('Exponential', { duration: 3, sampleRate: 48_000 });
  return whichIsIt(d, patch, {
    it: [set('beam.response', RESPONSE[level])],
    other: [set('beam.response', 0)],
    text: 'A straight envelope opens an amplifier. In which of the two is the amplifier exponential?',
    more: (seen) => 1 / (seen.at('beam.out').rms ?? Infinity),
  });
});
