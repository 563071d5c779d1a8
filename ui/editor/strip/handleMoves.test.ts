import { describe, expect, it } from 'vitest';
import { completeParams, kindNamed } from '@/core';
import { wantedDrives } from './frames';
import type { Bracket, EndView } from './frames';
import { endWith, movedTo, nudged } from './handleMoves';

const kind = kindNamed('filter')!;
const params = { ...completeParams(kind), cutoffHz: 200 };
const spec = kind.ends![0]!;

const end = (target: Bracket): EndView => ({
  spec,
  params,
  window: spec.window(params),
  reading: null,
  target,
  wanted: wantedDrives(target, spec, params),
});
const range: Bracket = { at: 'tone.cutoff', quantity: 'frequency', low: 200, high: 3200 };

describe('a handle of what is wanted', () => {
  it('stands at its figure’s drive, and gives the figure under the hand', () => {
    expect(end(range).wanted).toEqual([expect.closeTo(0, 9), expect.closeTo(4, 9)]);
    expect(movedTo(end(range), 'high', 3)).toEqual({ ...range, high: 1600 });
    expect(movedTo(end(range), 'low', 1)).toEqual({ ...range, low: 400 });
  });
  it('never crosses the other, nor leaves what the destination answers to', () => {
    expect(movedTo(end(range), 'low', 9)).toEqual({ ...range, low: 3200 });
    expect(movedTo(end(range), 'high', -2)).toEqual({ ...range, high: 200 });
    expect(movedTo(end(range), 'high', 20)).toEqual({ ...range, high: 20_000 });
  });
  it('of volts gives volts', () => {
    const volts: Bracket = { at: 'tone.cutoff', quantity: 'volts', low: -1, high: 2 };
    expect(movedTo(end(volts), 'high', 2.5)).toEqual({ ...volts, high: 2.5 });
  });
  it('of a span moves its middle and its width: the other end stays', () => {
    const span: Bracket = { at: 'tone.cutoff', want: 'span', quantity: 'frequency', span: 4, centre: 800 };
    expect(end(span).wanted).toEqual([expect.closeTo(0, 9), expect.closeTo(4, 9)]);
    const moved = movedTo(end(span), 'high', 2) as typeof span;
    expect(moved).toMatchObject({ span: 2, centre: 400 });
    expect(wantedDrives(moved, spec, params)[0]).toBeCloseTo(0, 3);
  });
  it('goes by steps of a twentieth of a volt', () => {
    const next = nudged(end(range), 'high', 2) as typeof range & { high: number };
    expect(Math.log2(next.high / 3200)).toBeCloseTo(0.1, 2);
  });
  it('counts a step from the target that stands, whatever is drawn', () => {
    const once = nudged(end(range), 'high', 1);
    const twice = nudged(endWith(end(range), once), 'high', 1) as typeof range & { high: number };
    expect(Math.log2(twice.high / 3200)).toBeCloseTo(0.1, 2);
  });
  it('that is free has no place of its own', () => {
    expect(end({ ...range, low: null } as Bracket).wanted).toEqual([null, expect.closeTo(4, 9)]);
  });
});
