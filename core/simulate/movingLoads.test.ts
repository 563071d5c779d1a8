import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { BoundsEngine } from '../bounds/bounds';
import { applyEdits } from '../edit/edit';
import { buildGraph } from '../graph/graph';
import { LiveEngine } from '../live/engine';
import { graphAt } from '../live/player';
import { patchOf } from '../testing/patch';
import { simulateGraph } from './simulate';

const RATE = 2000;
const SECONDS = 0.25;
const hand = (at: string, from: number, to: number) => ({
  at,
  points: [
    { t: 0, value: from },
    { t: SECONDS, value: to },
  ],
  interpolation: 'linear',
  loop: false,
});
/** A source of 1 kΩ into a passive pot of `ohms`, behind it a second pot and an input of 100 kΩ. */
const pots = (ohms: number, hands: readonly object[], reversed = false) =>
  patchOf(
    {
      c: ['constant', { volts: 5 }],
      a: ['attenuator', { build: 'passive', potOhms: ohms, amount: 0.3, reversed }],
      b: ['attenuator', { build: 'passive', potOhms: 20_000, amount: 0.6 }],
      x: ['offset'],
      j: ['junction'],
      y: ['offset'],
    },
    ['c.out > a.in', 'a.out > b.in', 'b.out > x.in', 'c.inverted > j.in1', 'a.out > j.in2', 'j.out > y.in'].filter(
      (c) => !c.startsWith('c.inverted'),
    ),
    { sampleRate: RATE, duration: SECONDS },
    { hands } as never,
  );
const sockets = ['c.out', 'a.out', 'b.out', 'j.out'];

describe('a hand on a passive pot', () => {
  it.each([
    [10_000, false],
    [100_000, false],
    [10_000, true],
    [1000, true],
  ])('of %s Ω moves what it passes and what it loads, as at each of its places (reversed: %s)', (ohms, reversed) => {
    const patch = pots(ohms, [hand('a.amount', 0.05, 0.95), hand('b.amount', 1, 0.2)], reversed);
    const graph = buildGraph(patch);
    const { traces } = simulateGraph(graph, { traces: sockets });
    const bounds = new BoundsEngine().run(graph);
    for (const share of [0.1, 0.36, 0.5, 0.78, 0.92]) {
      const still = applyEdits({ ...patch, hands: [] }, [
        { do: 'set', module: 'a', param: 'amount', value: 0.05 + 0.9 * share },
        { do: 'set', module: 'b', param: 'amount', value: 1 - 0.8 * share },
      ]);
      const there = simulateGraph(buildGraph(still), { traces: sockets }).traces;
      for (const s of sockets)
        expect(traces.get(s)![share * RATE * SECONDS]!, `${s} at ${share}`).toBeCloseTo(there.get(s)![0]!, 1);
    }
    for (const s of sockets) {
      const m = graph.modules.find((x) => `${x.id}.out` === s)!;
      const [low, high] = bounds.get(m.id)!.outputs[0]!;
      const trace = traces.get(s)!;
      expect(Math.min(...trace)).toBeGreaterThanOrEqual(low - 1e-9);
      expect(Math.max(...trace)).toBeLessThanOrEqual(high + 1e-9);
    }
  });
  it('alone has a bound that is hardly wider than where it goes', () => {
    const graph = buildGraph(pots(10_000, [hand('a.amount', 0.05, 0.95)]));
    const { traces } = simulateGraph(graph, { traces: sockets });
    const bounds = new BoundsEngine().run(graph);
    for (const s of sockets) {
      const [low, high] = bounds.get(s.split('.')[0]!)!.outputs[0]!;
      const trace = traces.get(s)!;
      expect(high - low, s).toBeLessThan(1.15 * (Math.max(...trace) - Math.min(...trace)) + 0.05);
    }
  });
  it('lies within the bound wherever it is', () => {
    const place = fc.double({ min: 0, max: 1, noNaN: true });
    const ohms = fc.constantFrom(1000, 5000, 30_000, 1_000_000);
    fc.assert(
      fc.property(place, place, place, place, ohms, fc.boolean(), (a, b, c, d, r, reversed) => {
        const graph = buildGraph(pots(r, [hand('a.amount', a, b), hand('b.amount', c, d)], reversed));
        const { traces } = simulateGraph(graph, { traces: sockets });
        const bounds = new BoundsEngine().run(graph);
        for (const s of sockets) {
          const [low, high] = bounds.get(s.split('.')[0]!)!.outputs[0]!;
          expect(Math.min(...traces.get(s)!), s).toBeGreaterThanOrEqual(low - 1e-9);
          expect(Math.max(...traces.get(s)!), s).toBeLessThanOrEqual(high + 1e-9);
        }
      }),
      { numRuns: 60 },
    );
  });
  it('under an ideal load is its place', () => {
    const patch = pots(10_000, [hand('a.amount', 0, 1)]);
    const ideal = { ...patch, settings: { ...patch.settings, loading: 'ideal' as const } };
    const { traces } = simulateGraph(buildGraph(ideal), { traces: ['a.out'] });
    expect(traces.get('a.out')![(RATE * SECONDS) / 2]!).toBeCloseTo(2.5, 2);
  });
});

describe('a passive pot that is turned while it is heard', () => {
  it.each([1000, 10_000, 100_000])('moves itself and its neighbours without a step: %s Ω', (ohms) => {
    const patch = applyEdits(pots(ohms, []), [{ do: 'set', module: 'a', param: 'amount', value: 0.1 }]);
    const turned = applyEdits(patch, [{ do: 'set', module: 'a', param: 'amount', value: 0.9 }]);
    const rate = 48_000;
    const engine = new LiveEngine(graphAt(patch, rate));
    const played = (e: LiveEngine, socket: string): number => {
      e.advance(1);
      return e.buffer(socket)[0]!;
    };
    for (let k = 0; k < 100; k++) engine.advance(1);
    const before = sockets.map((s) => engine.buffer(s)[0]!);
    engine.edit(graphAt(turned, rate));
    const heard = sockets.map((_, i) => [before[i]!]);
    for (let k = 0; k < 400; k++) {
      engine.advance(1);
      sockets.forEach((s, i) => heard[i]!.push(engine.buffer(s)[0]!));
    }
    sockets.forEach((s, i) => {
      const at = (share: number): number =>
        played(
          new LiveEngine(
            graphAt(applyEdits(patch, [{ do: 'set', module: 'a', param: 'amount', value: 0.1 + 0.8 * share }]), rate),
          ),
          s,
        );
      const law = Array.from({ length: 241 }, (_, k) => at(k / 240));
      const steepest = (x: readonly number[]): number =>
        x.slice(1).reduce((most, v, k) => Math.max(most, Math.abs(v - x[k]!)), 0);
      expect(steepest(heard[i]!), s).toBeLessThanOrEqual(1.2 * steepest(law) + 1e-6);
      expect(heard[i]!.at(-1), s).toBeCloseTo(law.at(-1)!, 9);
    });
  });
});
