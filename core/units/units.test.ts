import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { commonMultiple, fractionOf, toNumber } from './fraction';
import { clockOf, positionOf, readTyped, valueAt } from './knob';
import { noteOfHz, noteOfVolts } from './pitch';
import { showDb, showHz, showRange, showVolts } from './show';

const bipolar = { min: -1, max: 1, taper: 'linear' } as const;
const rate = { min: 0.001, max: 1000, taper: 'log' } as const;
const lag = { min: 0, max: 60, taper: 'log' } as const;

describe('knob positions', () => {
  it('run from 7:00 through noon to 5:00', () => {
    expect([0, 0.5, 1, 0.7, 0.25].map(clockOf)).toEqual(['7:00', '12:00', '5:00', '2:00', '9:30']);
  });
  it('position and value undo each other', () => {
    fc.assert(
      fc.property(fc.double({ min: 0, max: 1, noNaN: true }), fc.constantFrom(bipolar, rate), (p, travel) => {
        expect(positionOf(travel, valueAt(travel, p))).toBeCloseTo(p, 9);
      }),
    );
    expect([valueAt(lag, 0), positionOf(lag, 0), positionOf(lag, 60)]).toEqual([0, 0, 1]);
  });
  it('reads a clock position, a percentage, and a number with or without its unit', () => {
    const read = (
      text: string,
      travel: Parameters<typeof readTyped>[1] = bipolar,
      unit: Parameters<typeof readTyped>[2] = '',
    ) => {
      const typed = readTyped(text, travel, unit);
      return typed.ok ? typed.value : typed.message;
    };
    expect(read('2:00')).toBeCloseTo(0.4, 9);
    expect(read('70%')).toBeCloseTo(0.4, 9);
    expect(read('-0.4')).toBe(-0.4);
    expect(read('\u22120.4')).toBe(-0.4);
    expect(read('1.5V', { min: -5, max: 5, taper: 'linear' }, 'V')).toBe(1.5);
    expect(read('200 ms', lag, 's')).toBeCloseTo(0.2, 12);
    expect(read('3.2kHz', { min: 16, max: 20000, taper: 'log' }, 'Hz')).toBeCloseTo(3200, 9);
    expect(read('6:00')).toMatch(/7:00 through 12:00 to 5:00/);
    expect(read('2')).toBe('Must be between -1 and 1.');
    expect(read('1 Hz')).toBe('This knob takes plain numbers.');
    expect(read('loud')).toMatch(/^Enter a number/);
  });
});

describe('printing', () => {
  it('uses the true minus sign and a no-break space', () => {
    expect(showVolts(-2)).toBe('\u22122.00\u00a0V');
    expect(showVolts(-0.001)).toBe('0.00\u00a0V');
    expect(showDb(null)).toBe('\u2212∞\u00a0dB');
    expect([showHz(212), showHz(3140), showHz(16)]).toEqual(['212\u00a0Hz', '3.14\u00a0kHz', '16.0\u00a0Hz']);
    expect(showRange(220, 880, 'Hz')).toBe('220 to 880\u00a0Hz');
    expect(showRange(200, 3200, 'Hz')).toBe('200\u00a0Hz to 3.20\u00a0kHz');
  });
});

describe('pitch', () => {
  it('names notes and cents; 0 V is C4, A4 is 440 Hz', () => {
    expect(noteOfVolts(0)).toEqual({ name: 'C4', cents: 0 });
    expect(noteOfHz(440).name).toBe('A4');
    expect(noteOfHz(73.6)).toEqual({ name: 'D2', cents: expect.closeTo(4, 0) });
    expect(noteOfVolts(-1 / 12).name).toBe('B3');
    expect(noteOfHz(440 * 2 ** (10 / 1200)).cents).toBeCloseTo(10, 6);
  });
});

describe('fractions', () => {
  it('say what a decimal says, and find common periods', () => {
    expect(fractionOf(0.1)).toEqual({ n: 1n, d: 10n });
    expect(fractionOf(1e21)).toEqual({ n: 10n ** 21n, d: 1n });
    expect(toNumber(commonMultiple(fractionOf(0.4), fractionOf(1.5)))).toBe(6);
  });
});
