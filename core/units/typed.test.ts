import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import {
  clockOf,
  figureOf,
  pointerAt,
  positionOf,
  quantityFault,
  readQuantity,
  readTyped,
  shareAt,
  valueAt,
} from './knob';
import type { Panel, Travel, PanelPoint } from './knob';
import { noteOfSemitones } from './pitch';
import { scaleNames, scaleSemitones } from './scales';
import { briefSeconds, rulerSeconds, showQuantity, showRange } from './show';

const share = fc.double({ min: 0, max: 1, noNaN: true });

/** A panel whose figures rise with the pointer, as uneven as a hand-drawn one. */
const panel: fc.Arbitrary<Panel> = fc
  .tuple(
    fc.constantFrom([0, 10] as const, [-5, 5] as const, [0, 100] as const),
    fc.array(fc.integer({ min: 1, max: 9 }), { minLength: 1, maxLength: 6 }),
    fc.array(fc.integer({ min: 1, max: 9 }), { minLength: 6, maxLength: 6 }),
  )
  .map(([scale, across, up]) => {
    const sum = (list: readonly number[]): number => list.reduce((a, b) => a + b, 0);
    const heights = up.slice(0, across.length);
    // One part more of both, so that no point stands at an end.
    const [wide, tall] = [sum(across) + 2, sum(heights) + 2];
    const points = across.map((_, i): readonly [number, number] => [
      sum(across.slice(0, i + 1)) / wide,
      scale[0] + ((scale[1] - scale[0]) * sum(heights.slice(0, i + 1))) / tall,
    ]);
    return { scale, points };
  });
const travel: fc.Arbitrary<Travel> = fc.constantFrom(
  { min: -1, max: 1, taper: 'linear' },
  { min: 0, max: 10, taper: 'linear' },
  { min: 16, max: 20_000, taper: 'log' },
  { min: 0.001, max: 60, taper: 'log' },
);

/** A knob with such a panel, and half of them with what the knob gives at each of its points. */
const marked = fc.tuple(panel, travel, fc.boolean()).map(([p, t, valued]) => {
  const even = (share: number): number => valueAt(t, share ** 1.7);
  const points = p.points!.map(([position, figure]): PanelPoint =>
    valued ? [position, figure, even(position)] : [position, figure],
  );
  return { ...t, panel: { ...p, points } };
});

describe('a knob with a panel of its own', () => {
  it('points where its figure stands, and back', () => {
    fc.assert(
      fc.property(marked, share, (t, at) => {
        expect(shareAt(t, pointerAt(t, at))).toBeCloseTo(at, 9);
        expect(pointerAt(t, shareAt(t, at))).toBeCloseTo(at, 9);
      }),
    );
  });
  it('rises all the way, from one end to the other', () => {
    fc.assert(
      fc.property(marked, share, share, (t, a, b) => {
        expect([pointerAt(t, 0), pointerAt(t, 1)].map((v) => Math.round(v * 1e9) / 1e9)).toEqual([0, 1]);
        if (a < b - 1e-6) expect(pointerAt(t, a)).toBeLessThan(pointerAt(t, b));
      }),
    );
  });
  it('reads its own figure as the value that it shows it for', () => {
    fc.assert(
      fc.property(marked, share, (t, at) => {
        const value = valueAt(t, at);
        const typed = readTyped(figureOf(t, value).toFixed(9), t, 'V');
        expect(typed.ok).toBe(true);
        if (typed.ok) expect(positionOf(t, typed.value)).toBeCloseTo(at, 5);
      }),
    );
  });
  it('keeps its electrical way: without points the pointer is the share', () => {
    const plain: Travel = { min: 0, max: 1, taper: 'linear' };
    expect([pointerAt(plain, 0.3), shareAt({ ...plain, panel: { scale: [0, 10] } }, 0.3)]).toEqual([0.3, 0.3]);
  });
  it('tells the figure that is printed at a value, where its points say which that is', () => {
    const time: Travel = {
      min: 0.001,
      max: 10,
      taper: 'log',
      panel: {
        scale: [0, 10],
        points: [
          [0.3, 2, 0.02],
          [0.5, 5, 0.1],
          [0.8, 8, 2],
        ],
      },
    };
    expect(figureOf(time as never, 0.1)).toBeCloseTo(5, 9);
    expect(positionOf(time, 0.1)).toBeCloseTo(0.5, 9);
    expect(valueAt(time, 0.8)).toBeCloseTo(2, 9);
    expect(readTyped('5', time, 's')).toEqual({ ok: true, value: expect.closeTo(0.1, 9) });
    // By its octaves alone 100 ms would stand at half of 1 ms to 10 s, and be told as that half of the scale.
    expect(figureOf({ ...time, panel: { scale: [0, 10] } }, 0.05)).toBeCloseTo(4.247, 3);
  });
});

describe('what is shown can be typed again', () => {
  it('a clock position, to half a minute of the dial', () => {
    fc.assert(
      fc.property(travel, share, (t, at) => {
        const typed = readTyped(clockOf(at), t, '');
        expect(typed.ok).toBe(true);
        // Ten hours are the whole way.
        if (typed.ok) expect(Math.abs(positionOf(t, typed.value) - at)).toBeLessThanOrEqual(0.5 / 600 + 1e-9);
      }),
    );
  });
  it('a figure with its unit, to the digits that are shown', () => {
    const allowed: Readonly<Record<string, (v: number) => number>> = {
      Hz: (v) => 0.0051 * Math.abs(v),
      s: (v) => 0.0051 * Math.abs(v),
      V: () => 0.0051,
      dB: () => 0.051,
      '%': () => 0.051,
      '': (v) => 0.00051 * Math.abs(v),
    };
    fc.assert(
      fc.property(
        fc.constantFrom(...Object.keys(allowed)),
        fc.double({ min: 0.01, max: 9000, noNaN: true }),
        fc.boolean(),
        (unit, size, below) => {
          const value = below ? -size : size;
          const read = readQuantity(showQuantity(value, unit), unit);
          expect(read).not.toBeNull();
          expect(Math.abs((read ?? NaN) - value)).toBeLessThanOrEqual(allowed[unit]!(value));
        },
      ),
    );
  });
  it('but silence and what is none is no figure', () => {
    expect(readQuantity(showQuantity(null, 'dB'), 'dB')).toBeNull();
    expect(readQuantity(showQuantity(null, 'Hz'), 'Hz')).toBeNull();
    expect(readQuantity('', 'Hz')).toBeNull();
    expect(readQuantity('2:30', 'Hz')).toBeNull();
  });
  it('a figure out of reach, of another unit, or of a place where no pointer gets is refused', () => {
    const knob: Travel = { min: 0, max: 8, taper: 'linear' };
    for (const text of ['8.1', '-1', '101%', '-1%', '6:30', '1:75', '13:00', '3 Hz', '', '--2', '1e999'])
      expect([text, readTyped(text, knob, 'V').ok]).toEqual([text, false]);
    for (const [text, value] of [
      ['8', 8],
      ['0,5 V', 0.5],
      ['500m', 0.5],
      ['100%', 8],
      ['7:00', 0],
      ['12:00', 4],
      ['5:00', 8],
      ['2e0', 2],
    ] as const)
      expect([text, readTyped(text, knob, 'V')]).toEqual([text, { ok: true, value }]);
  });
});

describe('figures in a row', () => {
  it('name a shared unit once, and one figure once', () => {
    expect(showRange(1, 1, 'V')).toBe('+1.00\u00a0V');
    expect(showRange(-1, 2, 'V')).toBe('\u22121.00 to +2.00\u00a0V');
    expect(showRange(0.5, 2, 's')).toBe('500\u00a0ms to 2.000\u00a0s');
    expect(showRange(null, 0, 'dB')).toBe('\u2212∞ to 0.0\u00a0dB');
  });
  it('leave out zeros that say nothing', () => {
    expect([4, 1.5, 0.25, 0.02].map(briefSeconds)).toEqual(['4\u00a0s', '1.5\u00a0s', '250\u00a0ms', '20\u00a0ms']);
  });
  it('are of one unit along a ruler, each other than the next', () => {
    const plain = (ticks: readonly number[]): string => rulerSeconds(ticks).join(' ').replaceAll('\u00a0', '');
    expect(plain([0, 0.5, 1, 1.5])).toBe('0s 0.5s 1s 1.5s');
    expect(plain([0, 0.2, 0.4])).toBe('0ms 200ms 400ms');
    expect(plain([12.004, 12.005, 12.006])).toBe('12.004s 12.005s 12.006s');
    expect(plain([-0.001, 0, 0.001])).toBe('−1ms 0ms 1ms');
    expect([plain([]), plain([0])]).toEqual(['', '0s']);
    fc.assert(
      fc.property(
        fc.integer({ min: -4, max: 1 }),
        fc.constantFrom(1, 2, 5),
        fc.integer({ min: -1000, max: 1000 }),
        fc.integer({ min: 2, max: 8 }),
        (exponent, by, from, n) => {
          const step = by * 10 ** exponent;
          const ticks = Array.from({ length: n }, (_, i) => (from + i) * step);
          const texts = rulerSeconds(ticks).map((text) => text.split('\u00a0'));
          expect(new Set(texts.map(([, unit]) => unit)).size).toBe(1);
          const size = texts[0]?.[1] === 'ms' ? 1e-3 : 1;
          ticks.forEach((t, i) => {
            const said = Number(texts[i]?.[0]?.replace('\u2212', '-')) * size;
            expect(Math.abs(said - t)).toBeLessThan(step / 50);
          });
        },
      ),
    );
  });
});

describe('notes', () => {
  it('are the nearest, at most 50 cents away, and an octave apart share their name', () => {
    fc.assert(
      fc.property(fc.double({ min: -60, max: 60, noNaN: true }), (semitones) => {
        const { name, cents } = noteOfSemitones(semitones);
        expect(Math.abs(cents)).toBeLessThanOrEqual(50 + 1e-9);
        const [, letter, octave] = /^(.♯?)(-?\d+)$/.exec(name)!;
        const up = noteOfSemitones(semitones + 12);
        expect(up.name).toBe(`${letter}${Number(octave) + 1}`);
        expect(up.cents).toBeCloseTo(cents, 6);
      }),
    );
  });
  it('of every scale rise within an octave, from its root', () => {
    for (const name of scaleNames) {
      const steps = scaleSemitones(name);
      expect([name, steps[0]]).toEqual([name, 0]);
      expect(steps.every((n, i) => n < 12 && (i === 0 || n > steps[i - 1]!))).toBe(true);
    }
    // A list of one's own is brought into one octave, each note once.
    expect(scaleSemitones([7, 0, 12, 19, 4])).toEqual([0, 4, 7]);
  });
});

describe('a comma with three digits behind it', () => {
  const seconds: Travel = { min: 0.0005, max: 60, taper: 'log' };
  it('is asked about where both ways of reading it fit', () => {
    const typed = readTyped('1,500 ms', seconds, 's');
    expect(typed).toMatchObject({ ok: false, message: expect.stringContaining('1500ms') as string });
    expect(readQuantity('1,500', 'Hz')).toBeNull();
    expect(quantityFault('1,500', 'Hz')).toMatch(/can be read in two ways: type 1\.5 or 1500/);
  });
  it('is read by the limits where one way alone fits them', () => {
    expect(readTyped('1,500', { min: 0, max: 10, taper: 'linear' }, 'V')).toEqual({ ok: true, value: 1.5 });
    expect(readTyped('1,500', { min: 16, max: 20_000, taper: 'log' }, 'Hz')).toEqual({ ok: true, value: 1500 });
    expect(readQuantity('1,500', 'V', [-24, 24])).toBe(1.5);
  });
  it('groups thousands beside a dot or another comma, and begins decimals after a 0', () => {
    expect(readQuantity('1,500.25', 'Hz')).toBe(1500.25);
    expect(readQuantity('1,500,000', '')).toBe(1_500_000);
    expect(readQuantity('0,125', 'V')).toBe(0.125);
    expect(readQuantity('4,2 V', 'V')).toBe(4.2);
  });
});
