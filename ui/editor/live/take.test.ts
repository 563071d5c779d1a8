import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { applyEdits, blank, buildGraph, handAt, positionOf, simulateGraph, valueAt } from '@/core';
import type { NumberSpec, Patch } from '@/core';
import { patchOf } from '@/core/testing/patch';
import { LiveEngine } from '@/core/live/engine';
import { graphAt } from '@/core/live/player';
import { Ramps } from '@/core/live/ramps';
import { Take } from './take';
import { handEdits, handsOf } from './takeHands';

const RATE = 8000;
const BLOCK = 32;
const patch: Patch = {
  ...blank,
  settings: { ...blank.settings, sampleRate: RATE, duration: 1 },
  modules: [
    { id: 'fader', kind: 'constant' },
    { id: 'trim', kind: 'offset' },
  ],
  cables: [{ from: 'fader.out', to: 'trim.in' }],
};
type Knob = 'fader.volts' | 'trim.amount' | 'trim.volts';
const turn = (p: Patch, knob: Knob, value: number): Patch => {
  const [module = '', param = ''] = knob.split('.');
  return applyEdits(p, [{ do: 'set', module, param, value }]);
};

interface Played {
  /** At which block. */
  readonly block: number;
  readonly knob: Knob;
  readonly value: number;
}

/** Plays moves through the engine, takes them, and replays the take by simulation: what was heard, and what is. */
function playedAndReplayed(moves: readonly Played[], blocks = 250) {
  const engine = new LiveEngine(graphAt(patch, RATE), { block: BLOCK });
  const take = new Take(0);
  const heard: number[] = [];
  let [now, number] = [patch, 0];
  for (let block = 0; block < blocks; block++) {
    for (const move of moves.filter((m) => m.block === block)) {
      const next = turn(now, move.knob, move.value);
      take.note(now, next, ++number, 99);
      engine.edit(graphAt(next, RATE));
      take.heard(number, (engine.samples - 1) / RATE);
      now = next;
    }
    engine.advance();
    heard.push(...engine.buffer('trim.out').subarray(0, BLOCK));
  }
  const hands = handsOf(take.recorded((blocks * BLOCK) / RATE));
  const replay = applyEdits(patch, handEdits(hands));
  const graph = { ...buildGraph(replay), sampleRate: RATE };
  const { traces } = simulateGraph(graph, { traces: ['trim.out'] });
  const replayed = [...traces.get('trim.out')!].slice(0, heard.length);
  return { heard, replayed, hands };
}

/** The most that two traces are apart. */
const apart = (a: readonly number[], b: readonly number[]): number =>
  a.reduce((most, v, i) => Math.max(most, Math.abs(v - b[i]!)), 0);

describe('a take', () => {
  it('replays what was played at every sample, whatever knobs were turned when', () => {
    const move = fc.record({
      block: fc.integer({ min: 0, max: 240 }),
      knob: fc.constantFrom<Knob>('fader.volts', 'trim.amount', 'trim.volts'),
      value: fc.integer({ min: -100, max: 100 }).map((v) => v / 100),
    });
    fc.assert(
      fc.property(fc.array(move, { minLength: 1, maxLength: 60 }), (moves) => {
        const ordered = moves.toSorted((a, b) => a.block - b.block);
        const { heard, replayed } = playedAndReplayed(ordered);
        // Half a percent of 10 V of fader and offset, and of ±1 of an amount over 5 V.
        expect(apart(heard, replayed)).toBeLessThan(0.005 * (10 + 10 + 2 * 5));
      }),
      { numRuns: 40 },
    );
  });
  it('of long rests between moves holds them: hold, up, 25 steps down, hold, up', () => {
    const steps = Array.from({ length: 25 }, (_, i): Played => ({
      block: 100 + i,
      knob: 'fader.volts',
      value: 4 - 0.1 * i,
    }));
    const { heard, replayed } = playedAndReplayed([
      { block: 60, knob: 'fader.volts', value: 4 },
      ...steps,
      { block: 220, knob: 'fader.volts', value: 5 },
    ]);
    expect(apart(heard, replayed)).toBeLessThan(0.02 * 5);
  });
  it('of a gate of 60 ms is that gate, up and down', () => {
    const gates = [20, 60, 100, 140].flatMap((block): Played[] => [
      { block, knob: 'fader.volts', value: 5 },
      { block: block + 15, knob: 'fader.volts', value: 0 },
    ]);
    const { heard, replayed, hands } = playedAndReplayed(gates);
    expect(apart(heard, replayed)).toBeLessThan(1e-6);
    // Four corners a gate, and where it began.
    expect(hands[0]!.points).toHaveLength(4 * 4 + 1);
  });
  it('of an even slide is thinned to a line', () => {
    const slide = Array.from({ length: 200 }, (_, i): Played => ({ block: i, knob: 'fader.volts', value: i / 50 }));
    expect(playedAndReplayed(slide).hands[0]!.points.length).toBeLessThan(8);
  });
  it('goes by the page’s clock where the sound thread said nothing, in the order of the edits', () => {
    const take = new Take(1);
    let before = patch;
    [2, 3, 2.9].forEach((t, i) => {
      const after = turn(before, 'fader.volts', i + 1);
      take.note(before, after, i + 1, t);
      before = after;
    });
    const [hand] = handsOf(take.recorded(4));
    expect(hand!.points[0]).toEqual({ t: 1, value: 0 });
    expect(hand!.points.at(-1)!.value).toBe(3);
    const times = hand!.points.map((p) => p.t);
    expect(times).toEqual([...times].sort((a, b) => a - b));
  });
  it('of a logarithmic knob bends as it did, within half a percent of its travel', () => {
    const voiced: Patch = { ...patch, modules: [{ id: 'f', kind: 'filter' }], cables: [] };
    const travel = { min: 20, max: 20_000, taper: 'log' } as const;
    const cutoff = (p: Patch, share: number): Patch =>
      applyEdits(p, [{ do: 'set', module: 'f', param: 'cutoffHz', value: valueAt(travel, share) }]);
    const step = fc.record({
      share: fc.double({ min: 0, max: 1, noNaN: true }),
      wait: fc.integer({ min: 1, max: 300 }),
    });
    let hands = 0;
    fc.assert(
      fc.property(fc.array(step, { minLength: 1, maxLength: 30 }), (steps) => {
        const [ramps, take] = [new Ramps(), new Take(0)];
        let now = cutoff(voiced, 0.5);
        const stood = [Number(now.modules[0]!.params!.cutoffHz)];
        for (const [i, { share, wait }] of steps.entries()) {
          const next = cutoff(now, share);
          take.note(now, next, i, 0);
          take.heard(i, (stood.length - 1) / RATE);
          ramps.aim(graphAt(now, RATE), graphAt(next, RATE), stood.length);
          now = next;
          const begun = stood.length;
          for (let k = begun; k < begun + wait; k++)
            stood.push(ramps.of('f')[0]?.at(k) ?? Number(now.modules[0]!.params!.cutoffHz));
          ramps.arrived(stood.length);
        }
        const [hand] = handsOf(take.recorded(stood.length / RATE));
        if (!hand) return;
        hands++;
        const off = stood.map((v, k) => Math.abs(positionOf(travel, v) - positionOf(travel, handAt(hand, k / RATE))));
        expect(Math.max(...off)).toBeLessThan(0.005);
      }),
      { numRuns: 30 },
    );
    expect(hands).toBeGreaterThan(20);
  });
  it.each([
    ['vca', { cvAmount: 1 }, 'bias', ['slow.out > m.in']],
    ['vca', { bias: 2 }, 'cvAmount', ['slow.out > m.in', 'slow.out > m.cv']],
    ['envelope', { mode: 'loop', attack: 0.02, decay: 0.03 }, 'restVolts', []],
    ['crossfade', {}, 'position', ['slow.out > m.in']],
    ['slew', { rise: 0.05 }, 'rise', ['slow.out > m.in']],
  ] as const)('of %s %s %s replays at every sample, though it is not linear', (kind, params, param, cables) => {
    const slow = patchOf({ slow: ['lfo', { rateHz: 9 }], m: [kind, { ...params }] }, [...cables], { sampleRate: RATE });
    const m = buildGraph(slow).modules.find((x) => x.id === 'm')!;
    const { min, max } = m.kind.params[param] as NumberSpec;
    const socket = m.outputs[0]!.socket;
    const set = (p: Patch, share: number): Patch =>
      applyEdits(p, [{ do: 'set', module: 'm', param, value: min + share * (max - min) }]);
    let now = set(slow, 0.3);
    const engine = new LiveEngine(graphAt(now, RATE), { block: BLOCK });
    const take = new Take(0);
    const heard: number[] = [];
    [0.3, 0.9, 0.1, 1, 0.5, 0.45, 0.4, 0, 0.7].forEach((share, i) => {
      const next = set(now, share);
      take.note(now, next, i, 0);
      take.heard(i, (engine.samples - 1) / RATE);
      engine.edit(graphAt(next, RATE));
      now = next;
      for (let n = 0; n < 25; n++) {
        engine.advance();
        heard.push(...engine.buffer(socket).subarray(0, BLOCK));
      }
    });
    const hands = handsOf(take.recorded(heard.length / RATE));
    expect(hands).toHaveLength(1);
    const replay = { ...buildGraph(applyEdits(set(slow, 0.3), handEdits(hands))), sampleRate: RATE };
    const again = [...simulateGraph(replay, { traces: [socket] }).traces.get(socket)!].slice(0, heard.length);
    const span = Math.max(...heard) - Math.min(...heard);
    expect(span).toBeGreaterThan(1);
    expect(apart(heard, again) / span).toBeLessThan(0.01);
  });
  it('of nothing is nothing', () => {
    const take = new Take(0);
    take.note(patch, { ...patch, name: 'Another' }, 1, 1);
    expect(handsOf(take.recorded(2))).toEqual([]);
  });
});
