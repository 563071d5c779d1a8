import { describe, expect, it } from 'vitest';
import { predict } from '../answers/predict';
import { applyEdits } from '../edit/edit';
import { patchOf } from '../testing/patch';
import { helpersAt } from './helpers';
import { standingsOf } from './problem/runner';

const options = { openDb: 12, phase: 0.25 };

describe('helpers', () => {
  const tremolo = patchOf({ swell: ['lfo', { lowVolts: -5, highVolts: 5 }], voice: ['oscillator'], amp: ['vca'] }, [
    'swell.out > amp.cv',
    'voice.saw > amp.in',
  ]);
  const after = (key: string) => {
    const helper = helpersAt(tremolo, 'amp', options).find((h) => h.key === key)!;
    return predict(applyEdits(tremolo, helper.edits), { simulation: false }).readings.find((r) => r.at === 'amp.cv')!;
  };

  it('find an amplifier’s true zero and its unity: half the amount, 2.5 V of bias', () => {
    expect(after('rest to full').driveVolts).toEqual([expect.closeTo(0, 6), expect.closeTo(5, 6)]);
  });
  it('keep a tremolo open by a chosen minimum', () => {
    const { low, high } = after('stays open');
    expect(low).toBeCloseTo(-12, 3);
    expect(high).toBeCloseTo(0, 6);
  });
  it('8 V into 5 V just opens at 62.5%', () => {
    const patch = patchOf({ env: ['envelope', { mode: 'loop' }], voice: ['oscillator'], amp: ['vca'] }, [
      'env.out > amp.cv',
      'voice.saw > amp.in',
    ]);
    const helper = helpersAt(patch, 'amp', options).find((h) => h.key === 'just opens')!;
    expect(helper.edits).toEqual([{ do: 'set', module: 'amp', param: 'cvAmount', value: 0.625 }]);
  });
  it('bring levels down with their balance', () => {
    const patch = patchOf(
      {
        a: ['constant', { volts: 5 }],
        b: ['constant', { volts: 5 }],
        mix: ['mixer', { inputs: 2, gain1: 2, gain2: 1, maxGain: 2 }],
      },
      ['a.out > mix.in1', 'b.out > mix.in2'],
    );
    const [helper] = helpersAt(patch, 'mix', options);
    const mixed = predict(applyEdits(patch, helper!.edits), { simulation: false }).outputs['mix.out']!;
    expect(mixed.bound[1]).toBeCloseTo(12, 4);
    const params = applyEdits(patch, helper!.edits).modules.find((m) => m.id === 'mix')!.params!;
    expect(Number(params.gain1) / Number(params.gain2)).toBeCloseTo(2, 4);
  });
  it('lock one oscillator to another a quarter on', () => {
    const patch = patchOf({ a: ['lfo', { rateHz: 0.5 }], b: ['lfo', { rateHz: 0.5 }] }, [], { duration: 6 });
    const [helper] = helpersAt(patch, 'b', options);
    const locked = applyEdits(patch, helper!.edits);
    expect(locked.cables).toEqual([{ from: 'a.pulse', to: 'b.reset' }]);
    expect(locked.modules[1]!.params).toMatchObject({ phase: 0.25 });
  });
  it('put a level between chosen steps and the others, and say so where none does', () => {
    const steps = [1, 4, 2, 3.5].map((volts) => ({ volts, gate: true, tie: false }));
    const patch = patchOf(
      { clock: ['clock', { bpm: 120 }], row: ['sequencer', { steps }], high: ['comparator'] },
      ['clock.out > row.clock', 'row.cv > high.in'],
      { duration: 4 },
    );
    const [loud] = helpersAt(patch, 'high', options);
    expect(loud!.title).toContain('2, 4');
    // Half way between 3.5 − 0.1 and 2 + 0.2.
    expect(loud!.edits).toEqual([{ do: 'set', module: 'high', param: 'thresholdVolts', value: 2.8 }]);
    const target = { at: 'high.in', want: 'steps', of: 'row', steps: [1, 3] } as const;
    const met = (p: typeof patch) => standingsOf({ ...p, targets: [target] }).map((m) => m.met);
    expect(met(applyEdits(patch, loud!.edits))).toEqual([true]);
    const [none] = helpersAt(patch, 'high', { ...options, accents: [2] });
    expect(none!.edits).toEqual([]);
    expect(none!.says).toContain('No threshold');
    expect(helpersAt(patch, 'high', { ...options, accents: [] })[0]!.edits).toEqual([]);
  });
  it('say nothing where nothing makes sense', () => {
    expect(helpersAt(tremolo, 'voice', options)).toEqual([]);
    expect(helpersAt(tremolo, 'nobody', options)).toEqual([]);
  });
});
