import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { allKinds, buildGraph, parsePatch, predict, printPatch, stripTo } from '..';
import type { Patch, Strip } from '..';
import { patchOf } from '../testing/patch';
import { randomPatch } from '../testing/randomPatch';
import { inverseOf } from './between';
import * as copies from './copies';
import { applyEdits } from './edit';
import type { Edit } from './edit';
import { replaceStage as replaced } from './replace';
import * as stages from './stages';
import type { Added } from './stages';

/** What edits make; taken back, they leave what was. */
function did(before: Patch, edits: readonly Edit[]): Patch {
  const after = applyEdits(before, edits);
  expect(applyEdits(after, inverseOf(before, edits))).toEqual(before);
  return after;
}
const added = (before: Patch, made: Added | null) => made && { id: made.id, patch: did(before, made.edits) };
const insertStage = (p: Patch, socket: string, kind: string) => added(p, stages.insertStage(p, socket, kind));
const insertAfter = (p: Patch, output: string, kind: string) => added(p, stages.insertAfter(p, output, kind));
const feed = (p: Patch, socket: string, kind: string) => added(p, stages.feed(p, socket, kind));
const removeStages = (p: Patch, ids: readonly string[]) => did(p, stages.removeStages(p, ids));
const bypassStages = (p: Patch, ids: readonly string[]) => did(p, stages.bypassStages(p, ids));
const putBack = (p: Patch, id: string) => did(p, stages.putBack(p, id));
const moveStage = (p: Patch, id: string, socket: string) => did(p, stages.moveStage(p, id, socket));
const replaceStage = (p: Patch, id: string, kind: string) => did(p, replaced(p, id, kind));
const duplicateChain = (p: Patch, strip: Strip, to: string, mirrored: boolean, range: readonly [number, number]) =>
  did(p, copies.duplicateChain(p, strip, to, mirrored, range));

const insertable = allKinds.filter((k) => k.category === 'between' && !k.electrical?.joins);

const patch = patchOf(
  { swell: ['lfo'], trim: ['offset', { amount: 0.4, volts: 2 }], tone: ['filter'] },
  ['swell.out > trim.in', 'trim.out > tone.cutoff'],
  { duration: 0.1 },
);
const valid = (x: Patch): boolean => parsePatch(JSON.parse(JSON.stringify(printPatch(x)))).ok;
const bound = (x: Patch, socket: string) => predict(x, { simulation: false }).outputs[socket]!.bound;
const cablesOf = (x: Patch): string[] => x.cables.map((c) => `${c.from} > ${c.to}`).sort();

describe('inserting and removing', () => {
  it.each(insertable.map((k) => k.name))('%s goes into the cable, and taking it out restores the path', (kind) => {
    const done = insertStage(patch, 'tone.cutoff', kind)!;
    expect(valid(done.patch)).toBe(true);
    expect(done.patch.cables.find((c) => c.to === 'tone.cutoff')?.from.startsWith(`${done.id}.`)).toBe(true);
    expect(done.patch.cables.some((c) => c.from === 'trim.out' && c.to.startsWith(`${done.id}.`))).toBe(true);
    expect(removeStages(done.patch, [done.id])).toEqual(patch);
  });
  it('a new amplifier lets its signal through', () => {
    const done = insertStage(patch, 'tone.cutoff', 'vca')!;
    expect(bound(done.patch, `${done.id}.out`)).toEqual([0, 4]);
  });
  it('several go at once, and every gap is closed', () => {
    const done = insertStage(patch, 'tone.cutoff', 'inverter')!;
    expect(cablesOf(removeStages(done.patch, ['trim', done.id]))).toEqual(['swell.out > tone.cutoff']);
  });
  it('behind a source: what it fed is fed by the stage', () => {
    const done = insertAfter(patch, 'swell.out', 'inverter')!;
    expect(cablesOf(done.patch)).toEqual([
      'inverter.out > trim.in',
      'swell.out > inverter.in',
      'trim.out > tone.cutoff',
    ]);
    expect(bound(done.patch, 'trim.out')).toEqual([0, 4]);
    expect(removeStages(done.patch, [done.id]).cables).toEqual(expect.arrayContaining([...patch.cables]));
  });
  it('a source is plugged where none was', () => {
    const done = feed(patch, 'tone.in', 'noise')!;
    expect(done.patch.cables).toContainEqual({ from: `${done.id}.out`, to: 'tone.in' });
  });
});

describe('bypassing', () => {
  it('closes the gap, and putting back restores every cable', () => {
    const off = bypassStages(patch, ['trim']);
    expect(cablesOf(off)).toEqual(['swell.out > tone.cutoff']);
    expect(predict(off).findings.filter((f) => f.at === 'trim')).toEqual([]);
    expect(cablesOf(putBack(off, 'trim'))).toEqual(cablesOf(patch));
    expect(putBack(off, 'trim').bypassed).toEqual([]);
  });
  it('of several in a row leaves the main path, whatever was plugged last', () => {
    const joined = patchOf(
      { swell: ['lfo'], trim: ['offset'], hand: ['constant'], join: ['mixer'], tone: ['filter'] },
      ['swell.out > trim.in', 'trim.out > join.in1', 'hand.out > join.in2', 'join.out > tone.cutoff'],
    );
    expect(cablesOf(bypassStages(joined, ['trim', 'join']))).toContain('swell.out > tone.cutoff');
  });
  it('survives being stored', () => {
    const off = bypassStages(patch, ['trim']);
    const read = parsePatch(JSON.parse(JSON.stringify(printPatch(off))));
    expect(read.ok && cablesOf(putBack(read.value, 'trim'))).toEqual(cablesOf(patch));
  });
});

describe('moving', () => {
  it('goes earlier and later, and the sum changes as the order says', () => {
    const { patch: both, id } = insertStage(patch, 'tone.cutoff', 'rectifier')!;
    expect(bound(both, `${id}.out`)).toEqual([0, 4]);
    const earlier = moveStage(both, id, 'trim.in');
    expect(bound(earlier, 'trim.out')).toEqual([2, 4]);
    expect(cablesOf(moveStage(earlier, id, 'tone.cutoff'))).toEqual(cablesOf(both));
    expect(moveStage(both, id, `${id}.in`)).toBe(both);
  });
});

describe('replacing', () => {
  it('keeps the cables and what settings both have', () => {
    const replaced = replaceStage(patch, 'trim', 'attenuverter');
    expect(cablesOf(replaced)).toEqual(cablesOf(patch));
    expect(replaced.modules[1]).toMatchObject({ id: 'trim', kind: 'attenuverter', params: { amount: 0.4 } });
  });
  it('gives an amplifier’s cables to a ring modulator, control and all', () => {
    const tremolo = patchOf(
      { tone: ['oscillator'], swell: ['lfo'], amp: ['vca'], out: ['lineOut'] },
      ['tone.sine > amp.in', 'swell.out > amp.cv', 'amp.out > out.left'],
      { duration: 0.1 },
    );
    expect(valid(replaceStage(tremolo, 'amp', 'crossfade'))).toBe(true);
    const ring = replaceStage(tremolo, 'amp', 'ringMod');
    expect(valid(ring)).toBe(true);
    expect(ring.cables.filter((c) => c.to.startsWith('amp.')).length).toBeGreaterThan(0);
  });
});

describe('a chain to another end', () => {
  const two = patchOf(
    { swell: ['lfo'], trim: ['offset', { amount: 0.4, volts: 2 }], left: ['filter'], right: ['filter'] },
    ['swell.out > trim.in', 'trim.out > left.cutoff'],
    { duration: 0.1 },
  );
  const strip = stripTo(buildGraph(two), 'left.cutoff')!;
  it('has stages of its own and the same source', () => {
    const copied = duplicateChain(two, strip, 'right.cutoff', false, [0, 4]);
    expect(cablesOf(copied)).toContain('trim2.out > right.cutoff');
    expect(cablesOf(copied)).toContain('swell.out > trim2.in');
    expect(bound(copied, 'trim2.out')).toEqual([0, 4]);
  });
  it('mirrored gives the other way within the same range', () => {
    const copied = duplicateChain(two, strip, 'right.cutoff', true, [0, 4]);
    expect(copied.modules.at(-1)?.params).toMatchObject({ amount: -0.4, volts: 2 });
    expect(bound(copied, 'trim2.out')).toEqual([0, 4]);
  });
  it('mirrored by a stage of its own where the last cannot', () => {
    const plain = patchOf(
      {
        swell: ['lfo', { lowVolts: 0, highVolts: 8 }],
        half: ['attenuator', { amount: 0.5 }],
        left: ['filter'],
        right: ['filter'],
      },
      ['swell.out > half.in', 'half.out > left.cutoff'],
      { duration: 0.1, loading: 'ideal' },
    );
    const copied = duplicateChain(plain, stripTo(buildGraph(plain), 'left.cutoff')!, 'right.cutoff', true, [0, 4]);
    const from = copied.cables.find((c) => c.to === 'right.cutoff')!.from;
    expect(bound(copied, from)).toEqual([0, 4]);
    expect(valid(copied)).toBe(true);
  });
});

describe('any edit of any patch', () => {
  it('leaves one that can be saved', () => {
    fc.assert(
      fc.property(fc.nat(100_000), fc.nat(100), fc.nat(100), (seed, pick, other) => {
        const random = randomPatch(seed, { loops: true });
        const id = random.modules[pick % random.modules.length]!.id;
        const to = random.cables[other % Math.max(1, random.cables.length)]?.to;
        const kind = allKinds[other % allKinds.length]!.name;
        expect(valid(removeStages(random, [id]))).toBe(true);
        const off = bypassStages(random, [id]);
        expect(valid(off)).toBe(true);
        expect(cablesOf(putBack(off, id))).toEqual(cablesOf(random));
        expect(valid(replaceStage(random, id, kind))).toBe(true);
        if (to === undefined) return;
        expect(valid(moveStage(random, id, to))).toBe(true);
        const graph = buildGraph(random);
        const strip = stripTo(graph, to);
        if (strip) expect(valid(duplicateChain(random, strip, to, pick % 2 === 0, [-1, 3]))).toBe(true);
      }),
      { numRuns: 300 },
    );
  });
});
