import { set } from '../chain';
import { earPatch, earSkill, whichIsIt } from '../ears';

/** By level, the slower rate as a share of the faster. */
const SHARE = { 1: 0.4, 2: 0.6, 3: 0.75, 4: 0.85, 5: 0.92 } as const;

export const hearFaster = earSkill('hear-faster', 'Which is faster', (d, level) => {
  const patch = earPatch(d).patch('Faster', { duration: 3, sampleRate: 48_000 });
  const fast = d.number(2, 5, 0.25);
  return whichIsIt(d, patch, {
    it: [set('swell.rateHz', fast)],
    other: [set('swell.rateHz', Number((fast * SHARE[level]).toFixed(4)))],
    text: 'Which of the two moves faster?',
    more: (seen) => 1 / (seen.at('swell.out').repeatsEvery ?? Infinity),
  });
});
