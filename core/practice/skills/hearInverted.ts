import { set } from '../chain';
import { levelSteps } from '../../simulate/level';
import type { Seen } from '../seen';
import { earPatch, earSkill, whichIsIt } from '../ears';

/** By level, how deep the movement is. */
const DEPTH = { 1: 0.5, 2: 0.4, 3: 0.3, 4: 0.22, 5: 0.15 } as const;

/** How much of the time a sound becomes quieter: darker, behind a low-pass filter. */
function fallingShare(seen: Seen): number {
  const steps = levelSteps(seen.trace('beam.out'), seen.simulation.sampleRate);
  return steps.filter((v, i) => i > 0 && v < (steps[i - 1] as number)).length / Math.max(1, steps.length - 1);
}

export const hearInverted = earSkill('hear-inverted', 'Which is inverted', (d, level) => {
  const rateHz = d.number(0.8, 1.6, 0.2);
  const patch = earPatch(d, { lfo: { rateHz, shape: 'rampUp' } }).patch('Inverted', {
    duration: 3,
    sampleRate: 48_000,
  });
  return whichIsIt(d, patch, {
    it: [set('fog.cutoffAmount', -DEPTH[level])],
    other: [set('fog.cutoffAmount', DEPTH[level])],
    text: 'A ramp that rises moves the filter. In which of the two is it inverted, so that the sound darkens slowly?',
    more: fallingShare,
    traces: ['beam.out'],
  });
});
