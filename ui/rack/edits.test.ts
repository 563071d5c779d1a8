import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { blankRack, catalogue } from '@/core';
import type { Rack } from '@/core';
import {
  addByHand,
  addChannel,
  addOfType,
  changeChannel,
  duplicateModule,
  listed,
  removeChannel,
  removeModule,
  rowsOf,
  ROW_HP,
} from './edits';
import { howOf, rackFault, readPanel, readPoints, shownLimit, shownPoints, withLimit, withWay } from './limits';
import { kindNamed } from '@/core';

const types = catalogue.flatMap((c) => c.types.map((t) => t.type));
const built = (names: readonly string[]): Rack => names.reduce<Rack>((r, t) => addOfType(r, t)?.rack ?? r, blankRack);

describe('a rack that is built', () => {
  it('puts modules side by side, never over each other, whatever is added, doubled and removed', () => {
    fc.assert(
      fc.property(
        fc.array(fc.constantFrom(...types), { maxLength: 24 }),
        fc.array(fc.nat(30), { maxLength: 6 }),
        (names, doubled) => {
          let rack = built(names);
          for (const i of doubled) {
            const m = rack.modules[i % Math.max(1, rack.modules.length)];
            if (m) rack = i % 3 === 0 ? removeModule(rack, m.id) : (duplicateModule(rack, m.id)?.rack ?? rack);
          }
          expect(rackFault(rack)).toBeNull();
          for (const { modules } of rowsOf(rack)) {
            let at = 0;
            for (const m of modules) {
              expect(m.at!).toBeGreaterThanOrEqual(at);
              at = m.at! + m.hp!;
            }
            expect(at).toBeLessThanOrEqual(ROW_HP);
          }
        },
      ),
      { numRuns: 60 },
    );
  });

  it('keeps a channel at least, and no normal from one that is gone', () => {
    const { rack, id } = addOfType(blankRack, 'attenuverter-4')!;
    const without = removeChannel(rack, id, 'b');
    expect(rackFault(without)).toBeNull();
    expect(without.modules[0]!.channels.map((c) => c.id)).toEqual(['a', 'c', 'd']);
    expect(without.modules[0]!.channels[1]!.normals).toEqual([]);
    const one = ['b', 'c', 'd', 'a'].reduce((r, c) => removeChannel(r, id, c), rack);
    expect(one.modules[0]!.channels).toHaveLength(1);
    expect(addChannel(one, id).modules[0]!.channels.map((c) => c.id)).toEqual(['a', 'b']);
  });

  it('is made by hand, and found by words', () => {
    const { rack, id } = addByHand(built(['lfo-2', 'mixer-3']), 'vca');
    expect(rack.modules.at(-1)).toMatchObject({ id, channels: [{ id: 'a' }] });
    expect(listed(rack, 'amplif', new Map()).map((m) => m.module.id)).toEqual([id]);
    expect(listed(rack, 'slow osc', new Map())).toHaveLength(1);
    expect(listed(rack, 'nothing here', new Map())).toEqual([]);
  });
});

describe('what a channel allows', () => {
  const spec = kindNamed('attenuverter')!.params.amount!;
  const mode = { kind: 'attenuverter', fixed: {}, ranges: {}, choices: {} };

  it('is one of four ways, each read as it is typed', () => {
    const range = withLimit(withWay(mode, 'amount', spec, 'range'), 'amount', spec, '-0.5 … 1');
    expect(range).toMatchObject({ ranges: { amount: [-0.5, 1] } });
    const fixed = withLimit(withWay(range as typeof mode, 'amount', spec, 'fixed'), 'amount', spec, '−0.25');
    expect(fixed).toEqual({ ...mode, fixed: { amount: -0.25 } });
    const some = withLimit(
      withWay(mode, 'maxAmount', kindNamed('attenuverter')!.params.maxAmount!, 'choices'),
      'maxAmount',
      kindNamed('attenuverter')!.params.maxAmount!,
      '2',
    );
    expect(some).toMatchObject({ choices: { maxAmount: [2] } });
    expect(shownLimit(range as typeof mode, 'amount')).toBe('-0.5 … 1');
    expect(howOf(withWay(fixed as typeof mode, 'amount', spec, 'free'), 'amount')).toBe('free');
  });

  it('is refused in words where it cannot be read', () => {
    const range = withWay(mode, 'amount', spec, 'range');
    expect(withLimit(range, 'amount', spec, 'loud')).toContain('loud');
    expect(withLimit(range, 'amount', spec, '1')).toContain('Enter two numbers');
    const { rack, id } = addByHand(blankRack, 'attenuverter');
    const broken = changeChannel(rack, id, 'a', (c) => ({ ...c, modes: [{ ...mode, ranges: { amount: [1, -1] } }] }));
    expect(rackFault(broken)).toContain('must rise');
  });

  it('has a panel of its own, with points', () => {
    expect(readPanel('0 … 10', undefined)).toEqual({ scale: [0, 10] });
    expect(readPanel('', { scale: [0, 10] })).toBeNull();
    expect(readPanel('10 0', undefined)).toContain('Enter two numbers');
    expect(readPoints('0: 0, 50: 2, 100: 10', { scale: [0, 10] }, 's')).toEqual({
      scale: [0, 10],
      points: [
        [0, 0],
        [0.5, 2],
        [1, 10],
      ],
    });
    expect(readPoints('50', { scale: [0, 10] }, 's')).toContain('pairs');
    const timed = readPoints('30: 2 = 20 ms, 50: 5 = 100 ms', { scale: [0, 10] }, 's');
    expect(timed).toMatchObject({
      points: [
        [0.3, 2, 0.02],
        [0.5, 5, 0.1],
      ],
    });
    expect(shownPoints(timed as never)).toBe('30: 2 = 0.02, 50: 5 = 0.1');
    expect(readPoints('50: 5 = soon', { scale: [0, 10] }, 's')).toContain('pairs');
  });
});
