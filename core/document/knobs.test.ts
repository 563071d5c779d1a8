import { describe, expect, it } from 'vitest';
import { allKinds } from '../kinds';
import { knobsIn } from './knobs';
import { parsePatch } from './parse';
import type { ModuleDoc } from './types';

/** The faults of a module with these settings; none where they are valid. */
function refusal(kind: string, params: ModuleDoc['params']): string | null {
  const read = parsePatch({ format: 'fenvo.patch', version: 1, modules: [{ id: 'm', kind, params }] });
  return read.ok ? null : (read.errors[0]?.path ?? '');
}
const within = (x: number, [low, high]: readonly [number, number]): boolean => x >= low && x <= high;

describe('the knobs of a module', () => {
  it.each(allKinds.map((k) => k.name))(
    'of %s stand where they usually do, and go from end to end, no further',
    (kind) => {
      for (const { at, name, value, min, max } of knobsIn({ id: 'm', kind })) {
        expect(at).toBe(`m.${name}`);
        expect(within(value, [min, max]), at).toBe(true);
        for (const end of [min, max]) expect(refusal(kind, { [name]: end }), `${at} ${end}`).toBeNull();
        const beyond = 1e-6 * Math.max(1, Math.abs(max - min));
        for (const out of [min - beyond, max + beyond])
          expect(refusal(kind, { [name]: out }), `${at} ${out}`).toBe(`modules[0].params.${name}`);
      }
    },
  );
  it('are as far as the module’s own settings let them go', () => {
    const amount = (params: ModuleDoc['params']) => knobsIn({ id: 'm', kind: 'offset', params })[0]!;
    expect(amount({})).toMatchObject({ name: 'amount', min: -1, max: 1, value: 1 });
    expect(amount({ maxAmount: 4, amount: -3 })).toMatchObject({ min: -4, max: 4, value: -3 });
    const gains = (inputs: number): number =>
      knobsIn({ id: 'm', kind: 'mixer', params: { inputs } }).filter((k) => k.name.startsWith('gain')).length;
    expect([2, 5, 8].map(gains)).toEqual([2, 5, 8]);
  });
  it('that follow the tempo stand at the patch’s own where they are not set', () => {
    const bpm = (params: ModuleDoc['params']): number | undefined =>
      knobsIn({ id: 'm', kind: 'clock', params }, 92).find((k) => k.name === 'bpm')?.value;
    expect([bpm({}), bpm({ bpm: 60 })]).toEqual([92, 60]);
  });
  it('of a kind that is not known are none', () => {
    expect(knobsIn({ id: 'm', kind: 'nothing' })).toEqual([]);
  });
});
