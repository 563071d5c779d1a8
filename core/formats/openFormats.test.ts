import { readFileSync } from 'node:fs';
import path from 'node:path';
import { describe, expect, it } from 'vitest';
import { parsePatch } from '../document/parse';
import { printPatch } from '../document/print';
import type { Patch } from '../document/types';
import { buildGraph } from '../graph/graph';
import { randomPatch } from '../testing/randomPatch';
import { recipes } from '../recipes';
import { readTuning } from './midiTuning';
import { quantizerScale, readKbm, readScl } from './scala';
import { patchOfDot, patchToDot } from './dot';
import { packTables, patchOfTables, tablesOf, tablesOfCsv, tablesToCsv, unpackTables } from './tables';

/** What tables and graphs hold of a patch. */
const held = ({ name, settings, modules, cables, bypassed }: Patch) =>
  JSON.stringify(
    printPatch({
      ...(parsePatch({ format: 'fenvo.patch', version: 1, name }) as { value: Patch }).value,
      settings,
      modules: modules.map(({ id, kind, label, params }) => ({
        id,
        kind,
        ...(label !== undefined && { label }),
        ...(params && Object.keys(params).length > 0 && { params }),
      })) as Patch['modules'],
      cables,
      bypassed: modules.flatMap((m) => bypassed.filter((b) => b.module === m.id)),
    }),
  );
const value = <T>(read: { ok: true; value: T } | { ok: false; errors: string[] } | null): T => {
  if (!read?.ok) throw new Error(read?.errors.join('\n') ?? 'nothing');
  return read.value;
};

const awkward = { ...randomPatch(1, { duration: 1 }), name: 'Fog, “bank” \\ "breathing"\n№ 2; a -> b' };
const patches = [...Array.from({ length: 60 }, (_, seed) => randomPatch(seed, { hands: false, duration: 1 })), awkward];

describe.each([
  ['DOT', (p: Patch) => value(patchOfDot(patchToDot(p)))],
  ['tables', (p: Patch) => value(patchOfTables(value(tablesOfCsv(tablesToCsv(tablesOf(p))))))],
  ['a zip of tables', (p: Patch) => value(unpackTables(packTables(p)))],
] as const)('a patch as %s', (_, again) => {
  it('comes back with all its modules, cables and settings', () => {
    for (const patch of patches) expect(held(again(patch))).toBe(held(patch));
  });

  it('keeps the wiring of every recipe', () => {
    for (const { document } of recipes) {
      const patch = (parsePatch(document) as { value: Patch }).value;
      const [a, b] = [buildGraph(patch), buildGraph(again(patch))];
      expect(b.wiring.cables).toEqual(a.wiring.cables);
    }
  });
});

describe('what is wrong is told with its place', () => {
  it('in DOT', () => {
    const wrong = (text: string) => (patchOfDot(text) as { errors: string[] }).errors.join('\n');
    expect(wrong('digraph {')).toContain('Not a graph in DOT');
    expect(wrong('digraph { trim }')).toContain('node trim: its comment');
    expect(
      wrong('digraph { a [comment="{\\"kind\\":\\"offset\\"}"]; a -> a [taillabel=out, headlabel=nothing] }'),
    ).toContain('"nothing" is not an input of a');
  });

  it('in tables', () => {
    const files = {
      'modules.csv': 'id,kind,label,bypassed\na,offset,,\n',
      'cables.csv': 'from,to\n',
      'settings.csv': 'module,setting,value\n',
    };
    const wrong = (change: object) => {
      const read = tablesOfCsv({ ...files, ...change });
      const made = read.ok ? patchOfTables(read.value) : read;
      return (made as { errors: string[] }).errors.join('\n');
    };
    expect(tablesOfCsv(files)).toMatchObject({ ok: true });
    expect(wrong({ 'cables.csv': 'from\na.out\n' })).toContain('cables.csv: there is no column “to”');
    expect(wrong({ 'settings.csv': 'module,setting,value\nb,amount,1\n' })).toContain(
      'settings.csv, line 2: there is no module “b”',
    );
    expect(wrong({ 'settings.csv': 'module,setting,value\na,amount,9\n' })).toContain('modules[0].params.amount');
    expect(unpackTables(emptyZip)).toBeNull();
  });
});

/** A zip that holds nothing. */
const emptyZip = new Uint8Array([0x50, 0x4b, 5, 6, ...new Array<number>(18).fill(0)]);

describe('the examples of docs/formats.md', () => {
  const page = readFileSync(path.join(import.meta.dirname, '../../docs/formats.md'), 'utf8');
  const example = (language: string): string[] =>
    [...page.matchAll(/```(\w+)\n(.*?)```/gs)].flatMap(([, of, text = '']) => (of === language ? [text] : []));

  it('are read: a graph and tables of one patch, a scale and a mapping', () => {
    const graph = value(patchOfDot(example('dot')[0]!));
    const [modules = '', cables = '', settings = ''] = example('csv');
    const files = { 'modules.csv': modules, 'cables.csv': cables, 'settings.csv': settings };
    expect(held(value(patchOfTables(value(tablesOfCsv(files)))))).toBe(held(graph));
    expect(readFileSync(path.join(import.meta.dirname, '../../docs/examples/offset-into-filter.dot'), 'utf8')).toBe(
      example('dot')[0],
    );
    const scale = readScl(example('scl')[0]!);
    const map = readKbm(example('kbm')[0]!);
    if (!scale.ok || !map.ok) throw new Error('not read');
    const made = quantizerScale(scale.value, map.value);
    expect(made).toMatchObject({ ok: true, value: { root: 2 } });
    expect(made.ok && made.value.scale).toHaveLength(5);
  });

  it('are read: a MIDI tuning', () => {
    const bytes = example('syx')[0]!
      .trim()
      .split(/\s+/)
      .map((word) => Number.parseInt(word, 16));
    const tuning = readTuning(Uint8Array.from(bytes));
    if (!tuning.ok) throw new Error(tuning.errors);
    expect([60, 64, 71, 76].map((key) => tuning.value.notes[key])).toEqual([60, 63.86, 70.88, 75.86]);
  });
});
