import { PatchBuilder } from '../build';
import type { Seen } from '../seen';
import { set } from '../chain';
import { earSkill, whichIsIt } from '../ears';

/** By level, the slew that is heard, as a share of half a turn. */
const SHARE = { 1: 0.9, 2: 0.6, 3: 0.4, 4: 0.25, 5: 0.15 } as const;

/** How much of the time a voltage is between its two places. */
function betweenShare(seen: Seen): number {
  const trace = seen.trace('drag.out');
  const [low, high] = [-4.9, 4.9];
  return trace.reduce((n, v) => n + (v > low && v < high ? 1 : 0), 0) / Math.max(1, trace.length);
}

export const hearSlewed = earSkill('hear-slewed', 'Which is slewed', (d, level) => {
  const rateHz = d.number(1, 2, 0.25);
  const b = new PatchBuilder();
  const slow = b.add('lfo', 'Swell', { rateHz, shape: 'pulse' });
  const drag = b.stage(`${slow}.out`, 'slew', 'Drag');
  const tone = b.add('oscillator', 'Drone', { baseHz: d.pick([82.407, 110, 146.832]) });
  const fog = b.add('filter', 'Fog', { cutoffHz: 500, cutoffAmount: 0.35 });
  const beam = b.add('vca', 'Beam', { bias: 5 });
  const pier = b.add('lineOut', 'Pier', { padDb: 12, dcBlock: true });
  b.plug(drag, `${fog}.cutoff`).plug(`${tone}.saw`, `${fog}.in`).plug(`${fog}.lowpass`, `${beam}.in`);
  const patch = b.plug(`${beam}.out`, `${pier}.left`).patch('Slewed', { duration: 3, sampleRate: 48_000 });
  const time = Number(((SHARE[level] * 0.5) / rateHz).toFixed(4));
  return whichIsIt(d, patch, {
    it: [set('drag.rise', time), set('drag.fall', time)],
    other: [set('drag.rise', 0), set('drag.fall', 0)],
    text: 'In which of the two does the filter slide to its two places?',
    more: betweenShare,
    traces: ['drag.out'],
  });
});
