import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { equalTuning, keyTuning } from './keyTuning';
import type { KeyTuning } from './keyTuning';
import { printTuning, readTuning, sameTuning } from './midiTuning';
import { readKbm, readScl } from './scala';

const read = (...bytes: number[]): KeyTuning => {
  const tuning = readTuning(Uint8Array.from(bytes));
  if (!tuning.ok) throw new Error(tuning.errors);
  return tuning.value;
};
const scale = (text: string) => {
  const found = readScl(text);
  if (!found.ok) throw new Error(found.errors);
  return found.value;
};

const key = fc.oneof(
  { weight: 9, arbitrary: fc.double({ min: 0, max: 127.99, noNaN: true }) },
  { weight: 1, arbitrary: fc.constant(null) },
);
const tunings = fc.record({
  name: fc.constantFrom('Gulls, just', 'x', 'a name of more than sixteen letters'),
  notes: fc.array(key, { minLength: 128, maxLength: 128 }),
});

describe('a tuning over MIDI', () => {
  it('is read again as it was written, to half a step', () => {
    fc.assert(
      fc.property(tunings, (tuning) => {
        const bytes = printTuning(tuning);
        expect(bytes.length).toBe(408);
        expect([...bytes.subarray(1, -1)].every((b) => b < 128)).toBe(true);
        const again = read(...bytes);
        expect(again.name).toBe(tuning.name.slice(0, 16).trim());
        again.notes.forEach((note, i) => {
          const was = tuning.notes[i]!;
          if (was === null) expect(note).toBeNull();
          else expect(Math.abs(note! - was)).toBeLessThanOrEqual(0.5 / 16384 + 1e-12);
        });
        expect(sameTuning(again, tuning)).toBe(true);
      }),
      { numRuns: 30 },
    );
  });

  it('changes single keys of what was there, 440 Hz as the standard writes it', () => {
    // Key 60 to A4, key 61 a quarter tone up, key 62 as it was.
    const tuning = read(0xf0, 0x7f, 0, 8, 2, 0, 3, 60, 0x45, 0, 0, 61, 61, 0x40, 0, 62, 0x7f, 0x7f, 0x7f, 0xf7);
    expect(tuning.notes.slice(59, 64)).toEqual([59, 69, 61.5, 62, 63]);
    const second = readTuning(Uint8Array.from([0xf0, 0x7f, 0, 8, 7, 0, 0, 1, 60, 50, 0, 0, 0xf7]), tuning);
    expect(second.ok && second.value.notes.slice(59, 64)).toEqual([59, 50, 61.5, 62, 63]);
  });

  it('tunes octaves by a cent or finer', () => {
    const cents = [0, -64, 63, 5, -5, 0, 0, 0, 0, 0, 0, 1];
    const whole = read(0xf0, 0x7e, 0x7f, 8, 8, 3, 0x7f, 0x7f, ...cents.map((c) => c + 64), 0xf7);
    const [lowest, nearest] = [
      [0, 0],
      [64, 0],
    ] as const;
    const fine = read(0xf0, 0x7e, 1, 8, 9, 3, 0x7f, 0x7f, ...lowest, ...Array(11).fill(nearest).flat(), 0xf7);
    whole.notes.forEach((note, k) => expect(note).toBeCloseTo(k + cents[k % 12]! / 100, 12));
    fine.notes.forEach((note, k) => expect(note).toBeCloseTo(k % 12 === 0 ? k - 1 : k, 12));
  });

  it('is found among other messages; the first of several counts; nothing, or half of one, is said', () => {
    const [one, two] = [printTuning({ ...equalTuning, name: 'One' }), printTuning({ ...equalTuning, name: 'Two' })];
    expect(read(0xf0, 0x41, 1, 2, 3, 0xf7, ...one, ...two).name).toBe('One');
    expect(readTuning(one.subarray(0, 300))).toEqual({ ok: false, errors: expect.stringContaining('cut short') });
    expect(readTuning(Uint8Array.from([0xf0, 0x7e, 0, 8, 8, 0, 0, 0, 64, 0xf7])).ok).toBe(false);
    expect(readTuning(Uint8Array.from([0xf0, 0x41, 0xf7, 1, 2]))).toEqual({
      ok: false,
      errors: 'There is no MIDI tuning in it.',
    });
    fc.assert(
      fc.property(fc.uint8Array({ maxLength: 60 }), (bytes) => {
        const tuning = readTuning(Uint8Array.from([0xf0, 0x7e, 0, 8, ...bytes]));
        if (tuning.ok) expect(tuning.value.notes).toHaveLength(128);
      }),
    );
  });
});

describe('a scale over a keyboard', () => {
  const fifth = scale('Three of a fifth\n3\n300.0\n500.0\n3/2');

  it('of any period goes up key after key from C4', () => {
    const tuning = keyTuning(fifth) as KeyTuning;
    const period = 12 * Math.log2(3 / 2);
    [0, 3, 5, period, period + 3].forEach((above, i) => expect(tuning.notes[60 + i]).toBeCloseTo(60 + above, 5));
    expect(tuning.notes[57]).toBeCloseTo(60 - period, 5);
  });

  it('follows its mapping: reference, and keys that play nothing', () => {
    const even = scale(`Twelve\n12\n${Array.from({ length: 12 }, (_, i) => `${100 * (i + 1)}.`).join('\n')}`);
    const map = readKbm('12\n0\n127\n60\n69\n432\n12\n0\nx\n2\n3\n4\n5\n6\n7\n8\n9\n10\n11');
    if (!map.ok) throw new Error(map.errors);
    const tuning = keyTuning(even, map.value) as KeyTuning;
    expect(tuning.notes[61]).toBeNull();
    expect(440 * 2 ** ((tuning.notes[69]! - 69) / 12)).toBeCloseTo(432, 9);
    expect(tuning.notes[81]! - tuning.notes[69]!).toBeCloseTo(12, 9);
    expect(keyTuning(even, { ...map.value, reference: 61 })).toBe(
      'The reference key 61 plays nothing in this mapping.',
    );
  });
});
