import { describe, expect, it } from 'vitest';
import { applyEdits, blank } from '@/core';
import type { Patch } from '@/core';
import { Take } from './take';

const patch: Patch = {
  ...blank,
  modules: [
    { id: 'fader', kind: 'constant' },
    { id: 'trim', kind: 'offset' },
  ],
};
const at = (volts: number) => applyEdits(patch, [{ do: 'set', module: 'fader', param: 'volts', value: volts }]);

describe('a take', () => {
  it('is a hand on each knob that was turned, from where it stood, thinned to a line', () => {
    const take = new Take(1);
    let before = patch;
    for (let i = 1; i <= 100; i++) {
      const after = at(i / 25);
      take.note(before, after, 2 + i / 100);
      before = after;
    }
    const [hand, ...others] = take.hands();
    expect(others).toEqual([]);
    expect(hand).toMatchObject({ at: 'fader.volts', interpolation: 'linear', loop: false });
    expect(hand!.points[0]).toEqual({ t: 1, value: 0 });
    expect(hand!.points.at(-1)).toEqual({ t: 3, value: 4 });
    expect(hand!.points.length).toBeLessThan(5);
  });

  it('keeps the order of the moves where the clock was set back between them', () => {
    const take = new Take(0);
    [0.5, 0.62, 0.58, 0.6].forEach((t, i) => take.note(at(i), at(i + 1), t));
    const [hand] = take.hands();
    expect(hand!.points.at(-1)!.value).toBe(4);
    expect(hand!.points.map((p) => p.t)).toEqual([...hand!.points.map((p) => p.t)].sort((a, b) => a - b));
  });

  it('of keys is held from note to note', () => {
    const take = new Take(0);
    take.note(patch, at(1), 0.5);
    take.note(at(1), at(0.5), 1);
    take.note(at(0.5), at(2), 1.5);
    const [hand] = take.hands();
    expect(hand!.interpolation).toBe('hold');
    expect(hand!.points.map((p) => p.value)).toEqual([0, 1, 0.5, 2]);
  });

  it('of nothing is nothing', () => {
    const take = new Take(0);
    take.note(patch, { ...patch, name: 'Another' }, 1);
    expect(take.hands()).toEqual([]);
  });
});
