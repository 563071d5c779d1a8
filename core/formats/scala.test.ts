import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { parsePatch } from '../document/parse';
import { printScl, quantizerScale, readKbm, readScl } from './scala';

const scl = (...lines: string[]): string => lines.join('\n');
const just = scl(
  '! just.scl',
  '!',
  'Just minor, five notes',
  ' 5',
  '!',
  ' 6/5',
  ' 4/3',
  ' 701.955 fifth',
  ' 9/5 seventh',
  ' 2',
);
const even = scl('Twelve even notes', '12', ...Array.from({ length: 12 }, (_, i) => `${100 * (i + 1)}.0`));
const kbm = (lines: readonly (string | number)[]): string => ['! a map', ...lines].join('\r\n');
const read = <T>(result: { ok: true; value: T } | { ok: false; errors: string }): T => {
  if (!result.ok) throw new Error(result.errors);
  return result.value;
};
const cents = (over: number, under: number): number => 1200 * Math.log2(over / under);

describe('a scale file', () => {
  it('has ratios, whole numbers and cents, with comments and remarks', () => {
    const scale = read(readScl(just));
    expect(scale.name).toBe('Just minor, five notes');
    expect(scale.period).toBeCloseTo(12, 9);
    const expected = [0, cents(6, 5), cents(4, 3), 701.955, cents(9, 5)];
    scale.degrees.forEach((d, i) => expect(100 * d).toBeCloseTo(expected[i]!, 3));
  });

  it('is written and read again with the same notes', () => {
    const note = fc.double({ min: 0, max: 11.999, noNaN: true }).map((x) => Number(x.toFixed(6)));
    fc.assert(
      fc.property(fc.uniqueArray(note, { minLength: 1, maxLength: 40 }), (list) => {
        const scale = [0, ...list.filter((x) => x > 0)].sort((a, b) => a - b);
        const again = read(quantizerScale(read(readScl(printScl('Some notes', scale))), null));
        expect(again.scale).toHaveLength(scale.length);
        again.scale.forEach((x, i) => expect(x).toBeCloseTo(scale[i]!, 6));
      }),
    );
  });

  it.each([
    ['', 'how many notes'],
    [scl('Name', 'seven', '100.0'), 'Line 2: expected how many notes'],
    [scl('Name', '3', '100.0', '2/1'), 'expected 3 notes, found 2'],
    [scl('! c', 'Name', '2', '3/0', '2/1'), 'Line 4: “3/0” is neither cents'],
    [scl('Name', '1', 'fifth'), 'Line 3: “fifth”'],
    [scl('Name', '1', '1/1'), 'the last note must be above the first'],
  ])('tells what is wrong and where: %j', (text, says) => {
    expect(readScl(text)).toMatchObject({ ok: false, errors: expect.stringContaining(says) as string });
  });
});

describe('a keyboard mapping', () => {
  it('plays what its keys play, from its middle key, tuned to its reference', () => {
    const white = kbm([12, 0, 127, 62, 69, 432, 12, 0, 'x', 2, 'x', 4, 5, 'x', 7, 'x', 9, 'x', 11]);
    const found = read(quantizerScale(read(readScl(even)), read(readKbm(white))));
    expect(found.scale).toEqual([0, 2, 4, 5, 7, 9, 11]);
    expect(found.root).toBe(2);
    expect(found.tuneCents).toBeCloseTo(cents(432, 440), 6);
  });

  it('of no size goes key by key: the reference lies as many degrees above', () => {
    const linear = kbm([0, 0, 127, 60, 65, 392.4383475, 0]);
    const found = read(quantizerScale(read(readScl(just)), read(readKbm(linear))));
    // Five keys are an octave: key 65 is C5 of a scale on C4.
    expect(found.scale).toHaveLength(5);
    expect(found.tuneCents).toBeCloseTo(cents(392.4383475, 523.2511306), 4);
  });

  it('and a scale that no quantizer plays are refused in a sentence', () => {
    const thirds = read(readScl(scl('Tritave', '2', '5/3', '3/1')));
    expect(quantizerScale(thirds, null)).toMatchObject({
      ok: false,
      errors: expect.stringContaining('1902.0 ct') as string,
    });
    const silent = read(readKbm(kbm([2, 0, 127, 60, 61, 440, 12, 0, 'x'])));
    expect(quantizerScale(read(readScl(even)), silent)).toMatchObject({
      ok: false,
      errors: expect.stringContaining('plays nothing') as string,
    });
    expect(readKbm(kbm([12, 0, 127, 60, 69]))).toMatchObject({ ok: false, errors: 'expected the reference frequency' });
    expect(readKbm(kbm([1, 0, 127, 60, 69, 440, 12, 'y']))).toMatchObject({
      ok: false,
      errors: expect.stringContaining('Line 9') as string,
    });
  });

  it('gives what a patch takes', () => {
    const { scale, root } = read(quantizerScale(read(readScl(just)), null));
    const modules = [{ id: 'notes', kind: 'quantizer', params: { scale: [...scale], root } }];
    expect(parsePatch({ format: 'fenvo.patch', version: 1, name: 'Just', modules }).ok).toBe(true);
  });
});
