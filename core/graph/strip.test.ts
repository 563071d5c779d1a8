import { describe, expect, it } from 'vitest';
import { patchOf } from '../testing/patch';
import { randomPatch } from '../testing/randomPatch';
import { buildGraph } from './graph';
import { endsOf, flipsAt, openingEnd, stripTo } from './strip';

const graph = buildGraph(
  patchOf(
    {
      swell: ['lfo'],
      trim: ['offset', { amount: -0.4 }],
      tide: ['gesture'],
      depth: ['attenuator'],
      join: ['mixer'],
      tone: ['filter'],
      drone: ['oscillator'],
    },
    [
      'swell.out > trim.in',
      'trim.out > join.in1',
      'tide.out > depth.in',
      'depth.out > join.in2',
      'join.out > tone.cutoff',
      'drone.saw > tone.in',
    ],
  ),
);

describe('strips', () => {
  it('follow the main signal back from the destination, with what joins on the way', () => {
    const strip = stripTo(graph, 'tone.cutoff')!;
    expect(strip.frames.map((f) => [f.module.id, f.output])).toEqual([
      ['swell', 'swell.out'],
      ['trim', 'trim.out'],
      ['join', 'join.out'],
      ['tone', null],
    ]);
    expect(strip.joinings.map((j) => [j.into.socket, j.frames.map((f) => f.module.id)])).toEqual([
      ['join.in2', ['tide', 'depth']],
    ]);
  });
  it('a joining path is a strip of its own', () => {
    expect(stripTo(graph, 'join.in2')!.frames.map((f) => f.module.id)).toEqual(['tide', 'depth', 'join']);
  });
  it('know which stages flip', () => {
    expect(stripTo(graph, 'tone.cutoff')!.frames.map(flipsAt)).toEqual([false, true, false, false]);
    const inverted = buildGraph(
      patchOf({ l: ['lfo'], i: ['inverter'], m: ['mixer', { inverting: true }], f: ['filter'] }, [
        'l.inverted > i.in',
        'i.out > m.in1',
        'm.inverted > f.cutoff',
      ]),
    );
    expect(stripTo(inverted, 'f.cutoff')!.frames.map(flipsAt)).toEqual([true, true, false, false]);
  });
  it('end where something has a unit of its own, or where something is wanted', () => {
    expect(endsOf(graph)).toEqual(['tone.cutoff']);
    const wanted = buildGraph(
      patchOf(
        { l: ['lfo'], i: ['inverter'] },
        ['l.out > i.in'],
        {},
        { targets: [{ at: 'i.in', quantity: 'volts', low: 0, high: 1 }] },
      ),
    );
    expect(endsOf(wanted)).toEqual(['i.in']);
  });
  it('a patch opens on what is wanted, else on its longest path', () => {
    const cables = ['l.out > a.cv', 'o.out > a.in', 'a.out > t.in', 't.out > f.cutoff'];
    const modules = { l: ['lfo'], o: ['lfo'], a: ['vca'], t: ['offset'], f: ['filter'] } as const;
    const graph = buildGraph(patchOf(modules, cables));
    expect(endsOf(graph)).toEqual(['a.cv', 'f.cutoff']);
    expect(openingEnd(graph)).toBe('f.cutoff');
    const targets = [{ at: 'a.cv', quantity: 'volts', low: 0, high: 1 }] as const;
    expect(openingEnd(buildGraph({ ...graph.patch, targets }))).toBe('a.cv');
    expect(openingEnd(buildGraph(patchOf({ l: ['lfo'] }, [])))).toBeNull();
  });
  it('exist for every end of any patch, loops included, and begin at a source or a loop', () => {
    for (let seed = 0; seed < 300; seed++) {
      const any = buildGraph(randomPatch(seed, { loops: true }));
      for (const socket of endsOf(any)) {
        const frames = stripTo(any, socket)!.frames;
        expect(frames.length).toBeGreaterThan(0);
        expect(new Set(frames.slice(0, -1).map((f) => f.module.id)).size).toBe(frames.length - 1);
      }
    }
  });
});
