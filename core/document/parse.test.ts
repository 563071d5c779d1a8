import { readFileSync } from 'node:fs';
import { describe, expect, it } from 'vitest';
import { demoPatches } from '../../demo/patches';
import { kindNamed } from '../kinds';
import { withOldDefaults } from './oldDefaults';
import { completeParams } from './params';
import { parsePatch } from './parse';
import { printPatch } from './print';
import { patchSchema } from './schema';

const doc = (more: object = {}): object => ({ format: 'fenvo.patch', version: 1, ...more });

function errorsOf(json: unknown): string[] {
  const result = parsePatch(json);
  return result.ok ? [] : result.errors.map((e) => `${e.path}: ${e.message}`);
}

describe('parsePatch', () => {
  it('names every fault with its place, all at once', () => {
    const errors = errorsOf(
      doc({
        settings: { railVolts: 3, colour: 'blue' },
        modules: [
          { id: 'a', kind: 'lfo', params: { rateHz: -3, wobble: 1 } },
          { id: 'a', kind: 'lof' },
          { id: 'B!', kind: 'vca' },
        ],
        cables: [{ from: 'a.out', to: 'a.rat' }, { from: 'x.out' }],
      }),
    );
    const starts = (text: string): boolean => errors.some((e) => e.startsWith(text));
    expect(errors).toContain('modules[0].params.rateHz: must be between 0.001 and 1000, got -3');
    for (const place of [
      'settings.railVolts: must be between 5 and 24, got 3',
      'settings.colour: unknown key',
      'modules[0].params.wobble: is not a parameter of lfo',
      'modules[1].id: is used twice: a',
      'modules[1].kind: there is no kind "lof"',
      'modules[2].id: must be a small letter',
      'cables[0].to: "rat" is not an input of a',
      'cables[1].from: there is no module "x"',
      'cables[1].to: must be text, got nothing',
    ]) {
      expect(starts(place), place).toBe(true);
    }
  });
  it('refuses numbers that are not finite, and a knob outside its own range', () => {
    const offset = (params: object): string[] => errorsOf(doc({ modules: [{ id: 'm', kind: 'offset', params }] }));
    expect(offset({ amount: Infinity })[0]).toMatch(/must be a finite number, got Infinity/);
    expect(offset({ amount: 1.5 })).toEqual(['modules[0].params.amount: must be between -1 and 1, got 1.5']);
    expect(offset({ amount: 1.5, maxAmount: 2 })).toEqual([]);
    expect(offset({ volts: 4, highVolts: 3 })).toEqual(['modules[0].params.volts: must be between -5 and 3, got 4']);
    expect(offset({ lowVolts: 5, highVolts: 5 })[0]).toMatch(/lowVolts: must be below highVolts/);
  });
  it('knows the sockets that a mixer’s inputs make', () => {
    const mixer = (inputs: number): string[] =>
      errorsOf(
        doc({
          modules: [
            { id: 'm', kind: 'mixer', params: { inputs } },
            { id: 'l', kind: 'lfo' },
          ],
          cables: [{ from: 'l.out', to: 'm.in4' }],
        }),
      );
    expect(mixer(4)).toEqual([]);
    expect(mixer(3)).toEqual(['cables[0].to: "in4" is not an input of m; expected one of in1, in2, in3']);
    expect(errorsOf(doc({ modules: [{ id: 'm', kind: 'mixer', params: { gain5: 1 } }] }))).toEqual([
      'modules[0].params.gain5: does not exist with these settings',
    ]);
  });
  it('an input takes one cable', () => {
    const cables = [
      { from: 'l.out', to: 'v.in' },
      { from: 'l.inverted', to: 'v.in' },
    ];
    expect(
      errorsOf(
        doc({
          modules: [
            { id: 'l', kind: 'lfo' },
            { id: 'v', kind: 'vca' },
          ],
          cables,
        }),
      )[0],
    ).toMatch(/^cables\[1\]\.to: v\.in already has a cable/);
  });
  it('takes `constructor` as an id, and keys like `__proto__` as any other', () => {
    expect(errorsOf(doc({ modules: [{ id: 'constructor', kind: 'lfo' }] }))).toEqual([]);
    const json = JSON.parse(
      '{"format":"fenvo.patch","version":1,"__proto__":{"polluted":true},"modules":[{"id":"a","kind":"lfo","params":{"__proto__":1}}]}',
    ) as unknown;
    expect(errorsOf(json)[0]).toMatch(/^modules\[0\]\.params\.__proto__: is not a parameter/);
    expect(({} as { polluted?: boolean }).polluted).toBeUndefined();
  });
  it('refuses a later version and another format', () => {
    expect(errorsOf({ format: 'fenvo.patch', version: 2 })[0]).toMatch(/^version: 2 is newer than this Fenvo supports/);
    expect(errorsOf({ format: 'other', version: 1 })[0]).toMatch(/^format: must be "fenvo.patch"/);
    for (const x of [null, 3, 'text', []]) expect(errorsOf(x)).toHaveLength(1);
  });
  it('keeps unknown top-level keys on a round trip', () => {
    const json = doc({ name: 'A', studio: { wall: 'north' } });
    const result = parsePatch(json);
    expect(result.ok && printPatch(result.value)).toMatchObject(json);
  });
  it('reads every demo patch, and prints it so that it reads the same', () => {
    for (const { document } of demoPatches('demo/patches')) {
      const result = parsePatch(document);
      expect(result.ok).toBe(true);
      if (result.ok) expect(parsePatch(JSON.parse(JSON.stringify(printPatch(result.value))))).toEqual(result);
    }
  });
});

describe('the published schema', () => {
  it('is what the parser’s own declarations make', () => {
    const published = JSON.parse(readFileSync('docs/patch.schema.json', 'utf8')) as unknown;
    expect(published).toEqual(JSON.parse(JSON.stringify(patchSchema())));
  });
});

describe('nesting', () => {
  const nested = (levels: number): unknown => {
    let x: unknown = 1;
    for (let i = 0; i < levels; i++) x = i % 2 === 0 ? [x] : { a: x };
    return x;
  };
  it('up to a hundred levels is read, the document being the first', () => {
    expect(parsePatch(doc({ studio: nested(99) }))).toMatchObject({ ok: true });
  });
  it('deeper is refused with its place, in unknown keys too, however deep', () => {
    for (const levels of [100, 1000, 200_000]) {
      const result = parsePatch(doc({ studio: nested(levels) }));
      expect(result.ok ? null : result.errors[0]?.path).toMatch(/^studio[.[]/);
      expect(result.ok ? null : result.errors[0]?.message).toContain('100 levels');
    }
    expect(parsePatch(doc({ modules: [nested(5000)] }))).toMatchObject({ ok: false });
  });
});

describe('defaults that were once others', () => {
  it('are written into a kept old document, in its variants too, and into nothing else', () => {
    const old = JSON.parse(readFileSync('core/document/kept/crossfades.fenvo.json', 'utf8')) as unknown;
    const mended = parsePatch(withOldDefaults(old));
    const amounts = mended.ok
      ? [mended.value, ...mended.value.variants].flatMap((s) => s.modules.map((m) => [m.id, m.params?.cvAmount]))
      : [];
    expect(amounts).toEqual([
      ['swing', undefined],
      ['pan', 1],
      ['blend', 0.25],
      ['swing', undefined],
      ['pan', 1],
    ]);
    expect(withOldDefaults(withOldDefaults(old))).toEqual(withOldDefaults(old));
    const other = { modules: [{ id: 'a', kind: 'vca' }] };
    expect(withOldDefaults(other)).toBe(other);
  });
  it('while a document from elsewhere means what is published', () => {
    const fresh = parsePatch({ format: 'fenvo.patch', version: 1, modules: [{ id: 'pan', kind: 'crossfade' }] });
    const kind = kindNamed('crossfade')!;
    expect(fresh.ok && completeParams(kind, fresh.value.modules[0]!.params).cvAmount).toBe(0);
  });
});
