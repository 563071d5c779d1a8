import { describe, expect, it } from 'vitest';
import type { Edit } from '../edit/edit';
import { applyEdits } from '../edit/edit';
import { patchOf } from '../testing/patch';
import { graphAt, Player } from './player';
import { isSeamless } from './seam';

const RATE = 48_000;
const ears = { left: 'a.out', right: 'a.out', gain: 1 };
const patch = patchOf(
  {
    o: ['oscillator', { baseHz: 110 }],
    other: ['oscillator', { baseHz: 55 }],
    trim: ['attenuverter', { amount: -1 }],
    a: ['vca', { bias: 5 }],
    far: ['offset'],
  },
  ['o.sine > trim.in', 'trim.out > a.in'],
  { duration: 1 },
);

function heard(player: Player, samples: number): number[] {
  const [left, right] = [new Float32Array(128), new Float32Array(128)];
  return Array.from({ length: samples / 128 }, () => {
    player.next(left, right, 128);
    return [...left];
  }).flat();
}
const steepest = (x: readonly number[]): number =>
  x.slice(1).reduce((most, v, i) => Math.max(most, Math.abs(v - x[i]!)), 0);

/** A player in the middle of its sound, at full level; odd blocks on, so that a cut would fall anywhere in a cycle. */
function playing(blocks: number): Player {
  const player = new Player(patch, RATE, ears);
  player.listening.setLevel(0);
  heard(player, RATE + (blocks * 128 - (RATE % 128)));
  return player;
}

const edits: readonly (readonly [string, readonly Edit[]])[] = [
  ['a cable is pulled', [{ do: 'unplug', to: 'a.in' }]],
  ['a stage is removed', [{ do: 'remove', id: 'trim' }]],
  ['another source is patched', [{ do: 'plug', cable: { from: 'other.sine', to: 'a.in' } }]],
  ['a stage is taken out of the way', [{ do: 'plug', cable: { from: 'o.sine', to: 'a.in' } }]],
];

describe('an edit under sound', () => {
  it.each(edits)('is heard without a click: %s', (_, list) => {
    for (let blocks = 0; blocks < 12; blocks++) {
      const player = playing(blocks);
      const before = heard(player, 1280);
      // At most 10 V over 10 ms, at the steepest of a raised cosine, beside what the sounds do of themselves.
      const own = steepest(before) + (10 * 0.1 * Math.PI) / 2 / (0.01 * RATE);
      player.edit(applyEdits(patch, list), ears);
      const after = heard(player, 1280);
      const joined = [before.at(-1)!, ...after];
      expect(steepest(joined)).toBeLessThan(1.2 * own);
    }
  });
  it('of something that is not heard changes no sample', () => {
    const [one, two] = [playing(3), playing(3)];
    two.edit(applyEdits(patch, [{ do: 'plug', cable: { from: 'other.out', to: 'far.in' } }]), ears);
    expect(heard(two, 1280)).toEqual(heard(one, 1280));
  });
  it('tells what is heard otherwise from a knob that is turned', () => {
    const graph = graphAt(patch, RATE);
    const after = (...list: Edit[]) => graphAt(applyEdits(patch, list), RATE);
    expect(isSeamless(graph, after({ do: 'set', module: 'trim', param: 'amount', value: 0.2 }), 'a.out')).toBe(true);
    expect(isSeamless(graph, after({ do: 'remove', id: 'far' }), 'a.out')).toBe(true);
    expect(isSeamless(graph, after({ do: 'set', module: 'a', param: 'coupling', value: 'ac' }), 'a.out')).toBe(false);
    for (const [, list] of edits) expect(isSeamless(graph, after(...list), 'a.out')).toBe(false);
  });
});
