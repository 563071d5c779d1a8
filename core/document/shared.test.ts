import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { parsePatch } from './parse';
import { printPatch } from './print';
import type { Json } from './result';
import type { Patch } from './types';

const points = (count: number, volts: number) => Array.from({ length: count }, (_, t) => ({ t, volts }));
const bow = (list: Json, loop = false) => ({ id: 'bow', kind: 'gesture', params: { points: list, loop } });
const doc = (modules: Json, variants: Json[]) => ({ format: 'fenvo.patch', version: 1, modules, variants });
const read = (json: unknown): Patch => {
  const result = parsePatch(json);
  if (!result.ok) throw new Error(result.errors.map((e) => `${e.path} ${e.message}`).join('\n'));
  return result.value;
};
const again = (patch: Patch): unknown => JSON.parse(JSON.stringify(printPatch(patch)));

describe('variants that repeat a gesture', () => {
  const long = points(10_000, 2);
  const written = doc(
    [bow(long)],
    ['calm', 'wild', 'calmer'].map((name, i) => ({
      name,
      modules: [bow(i === 1 ? points(9_000, 3) : long, i > 0)],
    })),
  );
  it('store it once, in a third of the room, and mean the same', () => {
    const patch = read(written);
    const stored = JSON.stringify(printPatch(patch));
    expect(stored.length).toBeLessThan(JSON.stringify(written).length * 0.55);
    expect(read(JSON.parse(stored))).toEqual(patch);
    expect(stored).toContain('"points":{"same":"modules"}');
  });
  it('refer to a variant before them where the patch has another by now', () => {
    const wild = read(written).variants[1]?.modules;
    const stored = again(
      read(doc([bow(points(1, 0))], [written.variants[1] as Json, { name: 'b', modules: wild as never }])),
    );
    expect(stored).toMatchObject({
      variants: [{}, { modules: [{ params: { points: { same: 'variants[0].modules' } } }] }],
    });
  });
  it('hold it once in memory, so that a small file cannot become a great one', () => {
    const refers = Array.from({ length: 40 }, (_, i) => ({ name: `v${i}`, modules: [bow({ same: 'modules' })] }));
    const patch = read(doc([bow(long)], refers));
    for (const v of patch.variants) expect(v.modules[0]?.params?.points).toBe(patch.modules[0]?.params?.points);
  });
  it('keep short lists where they are, so that a file stays readable', () => {
    const short = doc([bow(points(16, 1))], [{ name: 'a', modules: [bow(points(16, 1))] }]);
    expect(JSON.stringify(again(read(short)))).not.toContain('same');
  });
  it('which refer to nothing are told where', () => {
    const wrong = (same: Json, id = 'bow') => {
      const variant = { name: 'a', modules: [{ ...bow({ same }), id }] };
      const result = parsePatch(doc([bow(long)], [variant]));
      return result.ok ? [] : result.errors.map((e) => e.path);
    };
    const place = ['variants[0].modules[0].params.points.same'];
    expect(wrong('modules')).toEqual([]);
    for (const same of ['variants[0].modules', 'variants[1].modules', 7, null]) expect(wrong(same)).toEqual(place);
    expect(wrong('modules', 'bough')).toEqual(place);
    expect(parsePatch(doc([bow({ same: 'modules' })], []))).toMatchObject({ ok: false });
  });
  it('are the same after any round trip', () => {
    const list = fc.constantFrom(points(3, 0), points(17, 1), points(40, 2), points(40, 3));
    fc.assert(
      fc.property(list, fc.array(list, { maxLength: 6 }), (main, others) => {
        const patch = read(
          doc(
            [bow(main)],
            others.map((o, i) => ({ name: `v${i}`, modules: [bow(o, i % 2 > 0)] })),
          ),
        );
        expect(read(again(patch))).toEqual(patch);
      }),
    );
  });
});
