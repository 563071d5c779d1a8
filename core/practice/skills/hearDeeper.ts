import { set } from '../chain';
import { earPatch, earSkill, whichIsIt } from '../ears';

/** By level, how much of the deeper one’s depth the other has. */
const SHARE = { 1: 0.2, 2: 0.35, 3: 0.5, 4: 0.65, 5: 0.75 } as const;

export const hearDeeper = earSkill('hear-deeper', 'Which is deeper', (d, level) => {
  const patch = earPatch(d).patch('Deeper', { duration: 2, sampleRate: 48_000 });
  const deep = d.number(0.3, 0.5, 0.05);
  return whichIsIt(d, patch, {
    it: [set('fog.cutoffAmount', deep)],
    other: [set('fog.cutoffAmount', Number((deep * SHARE[level]).toFixed(4)))],
    text: 'In which of the two does the filter move further?',
    more: (seen) => seen.reading('fog.cutoff')?.octaves ?? 0,
  });
});
