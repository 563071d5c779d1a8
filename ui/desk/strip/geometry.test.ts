import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import {
  connectorPath,
  domainOf,
  extremes,
  layoutOf,
  outside,
  RULER,
  stackRows,
  tracePath,
  UNIT_RULER,
} from './geometry';

const space = { width: 744, height: 460 };

describe('the strip’s layout', () => {
  it('fits its frames between the rulers, or scrolls', () => {
    for (const frames of [1, 4, 12]) {
      const layout = layoutOf(frames, space, 0, [-5, 5]);
      const right = layout.x.at(-1)! + layout.frameWidth;
      expect(right + UNIT_RULER).toBeLessThanOrEqual(layout.width + 1e-9);
      expect(layout.x[0]).toBe(RULER);
      expect(layout.width > space.width).toBe(frames === 12);
    }
  });
  it('one volt is as tall in every frame, up is up', () => {
    const { y, top, bottom } = layoutOf(3, space, 1, [-2, 6]);
    expect([y(6), y(-2)]).toEqual([top, bottom]);
    expect(y(1) - y(2)).toBeCloseTo(y(4) - y(5), 9);
  });
  it('the ruler holds all that it must show, with room', () => {
    const [low, high] = domainOf([
      [0, 4],
      [-5, 5],
    ]);
    expect(low).toBeLessThan(-5);
    expect(high).toBeGreaterThan(5);
    expect(domainOf([])[0]).toBeLessThan(0);
  });
});

describe('joining strips', () => {
  it('never cover each other', () => {
    const block = fc.record({ right: fc.integer({ min: 100, max: 700 }), frames: fc.integer({ min: 1, max: 6 }) });
    fc.assert(
      fc.property(fc.array(block, { maxLength: 8 }), (blocks) => {
        const placed = stackRows(blocks, 0);
        placed.forEach((a, i) =>
          placed.slice(0, i).forEach((b, j) => {
            if (a.row !== b.row) return;
            const left = (n: number, shown: number): number => blocks[n]!.right - shown * 126;
            expect(left(i, a.shown) >= blocks[j]!.right || left(j, b.shown) >= blocks[i]!.right).toBe(true);
          }),
        );
      }),
    );
  });
});

describe('shapes', () => {
  const y = (v: number): number => 100 - 10 * v;
  const picture = { min: Float32Array.of(0, 1, 2), max: Float32Array.of(0, 1, 2) };
  it('a thin trace is a line, a tall one is filled over all that its columns hold', () => {
    expect(tracePath(picture, 0, 20, y)).toEqual({ d: 'M0,100L10,90L20,80', filled: false });
    const tall = tracePath({ min: Float32Array.of(-5, -5), max: Float32Array.of(5, 5) }, 0, 10, y);
    expect(tall.filled).toBe(true);
    expect(tall.d).toContain('150');
  });
  it('a connector crosses where the stage flips', () => {
    const straight = connectorPath(0, [0, 4], [1, 3], false, y);
    const crossed = connectorPath(0, [0, 4], [1, 3], true, y);
    expect(straight).toContain('90'); // From the low edge at 0 V to the low edge at 1 V.
    expect(straight.split('L')[0]).toMatch(/30,90$/);
    expect(crossed.split('L')[0]).toMatch(/30,70$/);
  });
  it('what lies outside a window, on either side', () => {
    expect(outside([-2, 7], [0, 5])).toEqual([
      [-2, 0],
      [5, 7],
    ]);
    expect(outside([1, 2], [0, 5])).toEqual([]);
    expect(outside([6, 8], [0, 5])).toEqual([[6, 8]]);
  });
  it('extremes of a picture', () => {
    expect(extremes(picture)).toEqual([0, 2]);
    expect(extremes(undefined)).toBeNull();
  });
});
