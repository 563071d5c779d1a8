import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { arrange } from './order';

const edge = (from: number, to: number) => ({ from, to });

describe('the order of work', () => {
  it('puts sources before what they feed', () => {
    const groups = arrange([0, 1, 2], [edge(2, 1), edge(1, 0)]);
    expect(groups.map((g) => g.modules)).toEqual([[2], [1], [0]]);
  });
  it('cuts a loop at the cables into its first listed module', () => {
    const [group] = arrange([0, 1, 2], [edge(0, 1), edge(1, 2), edge(2, 0), edge(1, 0)]);
    expect(group).toMatchObject({ loop: true, modules: [0, 1, 2] });
    expect(group!.delayed).toEqual([edge(2, 0), edge(1, 0)]);
  });
  it('cuts again what is still a loop', () => {
    const [group] = arrange([0, 1, 2], [edge(0, 1), edge(1, 2), edge(2, 1), edge(2, 0)]);
    expect(group!.delayed).toEqual([edge(2, 0), edge(2, 1)]);
  });
  it('a cable from a module to itself is a loop', () => {
    expect(arrange([0], [edge(0, 0)])).toEqual([{ modules: [0], loop: true, delayed: [edge(0, 0)] }]);
  });
  it('any graph: each module once, and every cable that is not delayed goes forward', () => {
    const edges = fc.array(fc.record({ from: fc.nat(9), to: fc.nat(9) }), { maxLength: 30 });
    fc.assert(
      fc.property(edges, (list) => {
        const members = Array.from({ length: 10 }, (_, i) => i);
        const groups = arrange(members, list);
        const order = groups.flatMap((g) => g.modules);
        expect([...order].sort((a, b) => a - b)).toEqual(members);
        const delayed = new Set(groups.flatMap((g) => g.delayed));
        for (const e of list) if (!delayed.has(e)) expect(order.indexOf(e.from)).toBeLessThan(order.indexOf(e.to));
      }),
    );
  });
});
