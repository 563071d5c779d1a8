import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { TRUE_MODULE } from '../document/real';
import { applyEdits } from '../edit/edit';
import { patchOf } from '../testing/patch';
import { predict } from './cured';

/** A slow ±5 V through a scale and offset into an amplifier that a tone goes through; its own knobs are locked. */
const tremolo = (amount: number, volts: number, own: object = {}) =>
  patchOf(
    {
      slow: ['lfo', { shape: 'triangle', rateHz: 1 }],
      trim: ['offset', { amount, volts }, { label: 'Trim' }],
      tone: ['oscillator'],
      vca: ['vca', { cvAmount: 1, ...own }, { label: 'Amplifier', locked: ['bias', 'cvAmount'] }],
    },
    ['slow.out > trim.in', 'trim.out > vca.cv', 'tone.sine > vca.in'],
    { duration: 1, sampleRate: 8000 },
  );

const at = (patch: ReturnType<typeof tremolo>, code: string) =>
  predict(patch).findings.find((f) => f.code === code && f.at === 'vca.cv');

describe('cures for which knobs are solved', () => {
  it('a lift in front where the amplifier’s own knobs are locked', () => {
    const patch = tremolo(0.2, 0);
    const shut = at(patch, 'vca-shut');
    expect(shut?.numbers.missingVolts).toBeCloseTo(1, 9);
    expect(shut?.cure?.label).toContain('Trim offset to');
    const mended = applyEdits(patch, shut?.cure?.edits ?? []);
    expect(at(mended, 'vca-shut')).toBeUndefined();
    expect(mended.modules.find((m) => m.id === 'vca')).toEqual(patch.modules.find((m) => m.id === 'vca'));
  });

  it('the amount that just opens, found in front of it', () => {
    const short = at(tremolo(0.2, 1), 'vca-short');
    expect(short?.cure?.edits).toHaveLength(1);
    const open = at(tremolo(0.5, 2.5), 'vca-short');
    expect(open).toBeUndefined();
  });

  it('no knob that is locked is ever turned by a cure, and none is offered where all are', () => {
    const patch = tremolo(0.2, 0);
    const all = {
      ...patch,
      modules: patch.modules.map((m) => (m.id === 'trim' ? { ...m, locked: ['amount', 'volts'] } : m)),
    };
    expect(at(all, 'vca-shut')).toBeDefined();
    expect(at(all, 'vca-shut')?.cure).toBeUndefined();
  });

  it('whatever the amount and lift are, what is offered keeps its promise', () => {
    fc.assert(
      fc.property(fc.double({ min: -1, max: 1, noNaN: true }), fc.double({ min: -5, max: 5, noNaN: true }), (a, v) => {
        const patch = tremolo(a, v);
        for (const { code, cure } of predict(patch).findings) {
          if (!cure) continue;
          expect(cure.edits.some((e) => e.do === 'set' && e.module === 'vca')).toBe(false);
          expect(predict(applyEdits(patch, cure.edits)).findings.some((f) => f.code === code)).toBe(false);
        }
      }),
      { numRuns: 15 },
    );
  });
});

describe('cures of a module that was measured', () => {
  it('set what its pointer must say, so that the true setting is right', () => {
    const over = patchOf(
      {
        slow: ['lfo', { rateHz: 2, shape: 'pulse' }],
        env: ['envelope', { peakVolts: 8 }],
        tone: ['oscillator'],
        vca: ['vca', { unityVolts: 5 }],
      },
      ['slow.out > env.gate', 'env.out > vca.cv', 'tone.sine > vca.in'],
      { duration: 1, sampleRate: 8000 },
    );
    const travel = { min: -1, max: 1, taper: 'linear' } as const;
    const measured = {
      ...over,
      modules: over.modules.map((m) =>
        m.id === 'vca' ? { ...m, real: { ...TRUE_MODULE, pointers: { cvAmount: { travel, by: 0.03 } } } } : m,
      ),
    };
    const cureIn = (patch: typeof measured | typeof over) =>
      predict(patch).findings.find((f) => f.code === 'vca-over')?.cure;
    expect(cureIn(over)).toMatchObject({ label: 'Set CV amount to 62.5%', edits: [{ value: 0.625 }] });
    const cure = cureIn(measured);
    expect(cure?.label).toBe('Set CV amount to 62.5%, as measured');
    const [edit] = cure?.edits ?? [];
    // 3% of a travel of 2.
    expect(edit?.do === 'set' && edit.value).toBeCloseTo(0.625 - 0.06, 9);
    const mended = applyEdits(measured, cure?.edits ?? []);
    expect(predict(mended).findings.some((f) => f.code === 'vca-over')).toBe(false);
  });
});
