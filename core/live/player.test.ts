import { describe, expect, it } from 'vitest';
import { gainOf } from '../units/ratios';
import { patchOf } from '../testing/patch';
import { Player } from './player';

const RATE = 48_000;
const ears = { left: 'a.out', right: 'a.out', gain: 1 };
const side = (bias: number) =>
  patchOf({ o: ['oscillator', { baseHz: 440 }], a: ['vca', { bias }] }, ['o.sine > a.in'], { duration: 1 });

/** Plays on for some seconds; what was heard. */
function heard(player: Player, seconds: number): Float32Array {
  const out = new Float32Array(Math.round(seconds * RATE));
  const right = new Float32Array(128);
  for (let k = 0; k + 128 <= out.length; k += 128) player.next(out.subarray(k, k + 128), right, 128);
  return out;
}
const peakOf = (x: Float32Array): number => x.reduce((m, v) => Math.max(m, Math.abs(v)), 0);

describe('going over to the other side of a comparison', () => {
  it('is never louder than the louder side, has no gap of over 30 ms, and arrives matched', () => {
    // 1 V of 5 opens to a fifth: 14 dB quieter, so the loud side is turned down by as much.
    const [quiet, loud, match] = [side(1), side(5), 20 * Math.log10(1 / 5)];
    for (const [from, to, before, after] of [
      [quiet, loud, 0, match],
      [loud, quiet, match, 0],
    ] as const) {
      const player = new Player(from, RATE, ears);
      player.listening.setLevel(0);
      player.listening.setMatch(before);
      const steady = peakOf(heard(player, 2).subarray(RATE));
      player.switchTo(to, ears, after);
      const across = heard(player, 0.1);
      expect(peakOf(across)).toBeLessThan(steady * gainOf(0.05));
      let [gap, longest] = [0, 0];
      for (const v of across) {
        gap = Math.abs(v) < 0.001 * steady ? gap + 1 : 0;
        longest = Math.max(longest, gap);
      }
      expect(longest / RATE).toBeLessThan(0.03);
      expect(peakOf(heard(player, 0.5).subarray(RATE / 4))).toBeCloseTo(steady, 3);
    }
  });
  it('takes an edit along that comes on the way', () => {
    const player = new Player(side(1), RATE, ears);
    player.listening.setLevel(0);
    heard(player, 1);
    player.switchTo(side(5), ears, 0);
    player.edit(side(2), ears);
    heard(player, 0.5);
    // 5 V · 0.4 · 0.1.
    expect(peakOf(heard(player, 0.2))).toBeCloseTo(0.2, 2);
  });
});
