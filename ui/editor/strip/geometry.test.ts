import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import {
  connectorPath,
  foldsOf,
  layoutOf,
  NUMBER,
  outside,
  RULER,
  MINI,
  TINY,
  tracePath,
  UNIT_RULER,
  voltsAt,
} from './geometry';
import { joiningLeft, joiningRooms, joiningWidth, stackRows } from './rows';
import { domainOf } from '@/ui/parts/domain';

const space = { width: 744, height: 460 };
const open = (frames: number): boolean[] => Array.from({ length: frames }, () => false);

describe('the strip’s layout', () => {
  it('fits its frames between the rulers, or scrolls', () => {
    for (const frames of [1, 4, 12]) {
      const layout = layoutOf(open(frames), space, 0, [-5, 5]);
      const right = layout.x.at(-1)! + layout.w.at(-1)!;
      expect(right + UNIT_RULER).toBeLessThanOrEqual(layout.width + 1e-9);
      expect(layout.x[0]).toBe(RULER);
      expect(layout.width > space.width).toBe(frames === 12);
    }
  });
  it('one volt is as tall in every frame, up is up', () => {
    const { y, top, bottom } = layoutOf(open(3), space, 1, [-2, 6]);
    expect([y(6), y(-2)]).toEqual([top + NUMBER, bottom - NUMBER]);
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

describe('folding', () => {
  it('leaves a path that fits alone', () => {
    expect(foldsOf(5, 0, 744)).toEqual(open(5));
  });
  it('brings thirteen frames into 744 pixels, the one in hand and the destination unfolded', () => {
    for (const inHand of [0, 5, 12]) {
      const folds = foldsOf(13, inHand, 744);
      expect([folds[inHand], folds[12]]).toEqual([false, false]);
      expect(layoutOf(folds, space, 0, [-5, 5]).width).toBe(744);
    }
  });
  it('folds what is farthest from the one in hand first', () => {
    expect(foldsOf(7, 0, 744)).toEqual([false, false, false, false, true, true, false]);
  });
});

/** A path that joins somewhere. */
const block = fc.record({ right: fc.integer({ min: 58, max: 700 }), frames: fc.integer({ min: 1, max: 6 }) });

describe('joining strips', () => {
  it('six paths into one frame stand in six rows, tiny, and leave the frames their height', () => {
    const rows = stackRows(
      Array.from({ length: 6 }, () => ({ right: 500, frames: 2 })),
      0,
      TINY,
    );
    expect(new Set(rows.map((r) => r.row)).size).toBe(6);
    const layout = layoutOf(open(4), space, 6, [-5, 5]);
    expect(layout.small).toBe(TINY);
    expect(layout.height).toBeLessThanOrEqual(space.height + 1);
  });
  it('what joins further right stands higher, and its way down is clear; who fits beside stands beside', () => {
    const blocks = [200, 420, 430].map((right) => ({ right, frames: 1 }));
    expect(stackRows(blocks, 0, TINY).map((r) => r.row)).toEqual([0, 1, 0]);
    expect(stackRows(blocks, 0, TINY).map((r) => r.shown)).toEqual([1, 1, 1]);
  });
  it('never cover each other, nor stand in the way that another takes down to where it joins', () => {
    fc.assert(
      fc.property(fc.array(block, { maxLength: 8 }), fc.constantFrom(MINI, TINY), (blocks, small) => {
        const placed = stackRows(blocks, 0, small);
        const spans = placed.map(({ shown }, i) => [joiningLeft(blocks[i]!.right, shown, small), blocks[i]!.right]);
        placed.forEach((a, i) =>
          placed.forEach((b, j) => {
            const [[from, to], [left, right]] = [spans[i]!, spans[j]!] as [[number, number], [number, number]];
            if (i !== j && a.row === b.row) expect(to <= left || right <= from).toBe(true);
            // Both join at one place, or the way of the higher one passes beside the lower one.
            if (a.row < b.row) expect(to === right || to < left || to > right).toBe(true);
          }),
        );
      }),
    );
  });
});

describe('the strips of a joining path', () => {
  it('end before their way down, wherever that is, and are as wide as can be', () => {
    fc.assert(
      fc.property(block, fc.constantFrom(MINI, TINY), (own, small) => {
        const [{ shown } = { shown: 1 }] = stackRows([own], 0, small);
        const [left, width] = [joiningLeft(own.right, shown, small), joiningWidth(own.right, shown, small)];
        const end = (wide: number): number => left + shown * (wide + small.gap) - small.gap;
        expect(end(width)).toBeLessThanOrEqual(own.right - 14 + 1e-9);
        expect(width).toBeGreaterThan(0);
        if (end(small.width) <= own.right - 14) expect(width).toBe(small.width);
      }),
    );
  });
});

describe('what is written beside a joining path', () => {
  it('has the room up to the next in its row, and no end where none follows', () => {
    const blocks = [
      { right: 200, frames: 1 },
      { right: 420, frames: 1 },
    ];
    const rows = stackRows(blocks, 0, TINY);
    expect(rows.map((r) => r.row)).toEqual([0, 0]);
    expect(joiningRooms(blocks, rows, TINY)).toEqual([420 - 84 - 8 - 200, Infinity]);
  });
  it('ends at the way down of one that stands higher', () => {
    const blocks = [300, 420].map((right) => ({ right, frames: 3 }));
    const rows = stackRows(blocks, 0, TINY);
    expect(rows.map((r) => r.row)).toEqual([1, 0]);
    expect(joiningRooms(blocks, rows, TINY)).toEqual([120, Infinity]);
  });
  it('reaches no path and no way down of its row', () => {
    fc.assert(
      fc.property(fc.array(block, { maxLength: 8 }), fc.constantFrom(MINI, TINY), (blocks, small) => {
        const rows = stackRows(blocks, 0, small);
        joiningRooms(blocks, rows, small).forEach((room, i) => {
          expect(room).toBeGreaterThan(0);
          const end = blocks[i]!.right + room;
          blocks.forEach(({ right }, j) => {
            if (right <= blocks[i]!.right || rows[j]!.row > rows[i]!.row) return;
            const from = rows[j]!.row === rows[i]!.row ? joiningLeft(right, rows[j]!.shown, small) : right;
            expect(end).toBeLessThanOrEqual(from);
          });
        });
      }),
    );
  });
});

describe('shapes', () => {
  const y = (v: number): number => 100 - 10 * v;
  const reach = [0, 2] as const;
  const picture = { reach, min: Float32Array.of(0, 1, 2), max: Float32Array.of(0, 1, 2) };
  it('a thin trace is a line, a tall one is filled over all that its columns hold', () => {
    expect(tracePath(picture, 0, 20, y)).toEqual({ d: 'M0,100L20,80', filled: false });
    const bent = { reach, min: Float32Array.of(0, 1, 0), max: Float32Array.of(0, 1, 0) };
    expect(tracePath(bent, 0, 20, y).d).toBe('M0,100L10,90L20,100');
    const tall = tracePath({ reach, min: Float32Array.of(-5, -5), max: Float32Array.of(5, 5) }, 0, 10, y);
    expect(tall.filled).toBe(true);
    expect(tall.d).toContain('150');
  });
  it('a trace with fewer points leaves its columns nowhere by a quarter of a pixel', () => {
    const volts = fc.array(fc.double({ min: -4, max: 4, noNaN: true }), { minLength: 2, maxLength: 60 });
    fc.assert(
      fc.property(volts, fc.boolean(), (list, smooth) => {
        // Close together, so that the trace is a line.
        const column = Float32Array.from(list, (v, i) => (smooth ? Math.sin(v / 4 + i / 9) : v));
        const { d, filled } = tracePath({ reach, min: column, max: column }, 0, 10 * (column.length - 1), y);
        expect(filled).toBe(false);
        const points = d
          .slice(1)
          .split('L')
          .map((p) => p.split(',').map(Number) as [number, number]);
        expect(points.length).toBeLessThanOrEqual(column.length);
        column.forEach((v, i) => {
          const x = 10 * i;
          const at = Math.max(
            1,
            points.findIndex((p) => p[0] >= x),
          );
          const [[x0, y0], [x1, y1]] = [points[at - 1]!, points[at]!];
          const onLine = y0 + ((y1 - y0) * (x - x0)) / (x1 - x0);
          // Across the line, not upwards.
          const away = Math.abs(onLine - y(v)) / Math.hypot(1, (y1 - y0) / (x1 - x0));
          expect(away).toBeLessThan(0.25);
        });
      }),
    );
  });
  it('a connector crosses where the stage flips', () => {
    const straight = connectorPath(0, [0, 4], [1, 3], false, y, 30);
    const crossed = connectorPath(0, [0, 4], [1, 3], true, y, 30);
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
  it('the volts at a moment are those of its column', () => {
    expect(voltsAt(picture, 0.5)).toEqual([1, 1]);
    expect(voltsAt(picture, 2)).toEqual([2, 2]);
    expect(voltsAt({ reach, min: Float32Array.of(NaN), max: Float32Array.of(NaN) }, 0)).toBeNull();
  });
});
