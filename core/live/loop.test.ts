import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { completeParams } from '../document/params';
import { allKinds } from '../kinds';
import { patchOf } from '../testing/patch';
import { randomPatch } from '../testing/randomPatch';
import { buildGraph } from '../graph/graph';
import { LiveEngine } from './engine';
import { graphAt, Player } from './player';

const RATE = 48_000;

function played(engine: LiveEngine, sockets: readonly string[], samples: number): Float64Array[] {
  const traces = sockets.map(() => new Float64Array(samples));
  for (let k = 0; k < samples; k += engine.block) {
    const count = Math.min(engine.block, samples - k);
    engine.advance(count);
    sockets.forEach((s, i) => traces[i]!.set(engine.buffer(s).subarray(0, count), k));
  }
  return traces;
}

describe('a run that is saved and recalled', () => {
  it.each(allKinds.map((k) => [k.name, k] as const))('goes on as it did: %s', (_, kind) => {
    const params = completeParams(kind, undefined, 120);
    const inputs = kind.inputs(params).map((s) => s.name);
    // Fast things at every input: gates, a swing, a sound.
    const drivers = inputs.map((name, i): [string, string] => [
      `${['clock', 'slow', 'tone'][i % 3]!}.out`,
      `m.${name}`,
    ]);
    const patch = patchOf(
      {
        clock: ['lfo', { shape: 'pulse', rateHz: 90 }],
        slow: ['lfo', { rateHz: 37 }],
        tone: ['lfo', { shape: 'rampUp', rateHz: 211 }],
        m: [kind.name],
      },
      drivers.map(([from, to]) => `${from} > ${to}`),
    );
    const engine = new LiveEngine(graphAt(patch, RATE));
    const sockets = kind.outputs(params).map((name) => `m.${name}`);
    played(engine, [], 3000);
    const saved = engine.save();
    const first = played(engine, sockets, 5000);
    for (let turn = 0; turn < 2; turn++) {
      engine.recall(saved);
      expect(engine.samples).toBe(3000);
      expect(played(engine, sockets, 5000)).toEqual(first);
    }
  });
  it('goes on as it did, whatever the patch, loops and hands among it', () => {
    fc.assert(
      fc.property(fc.integer({ min: 1, max: 1e6 }), fc.integer({ min: 1, max: 3000 }), (seed, before) => {
        const patch = randomPatch(seed);
        const engine = new LiveEngine(graphAt(patch, 8000));
        const sockets = buildGraph(patch).modules.flatMap((m) => m.outputs.map((o) => o.socket));
        played(engine, [], before);
        const saved = engine.save();
        const first = played(engine, sockets, 1500);
        engine.recall(saved);
        // Kernels are made anew: the last digit may differ.
        played(engine, sockets, 1500).forEach((trace, i) =>
          expect(trace.reduce((most, v, k) => Math.max(most, Math.abs(v - first[i]![k]!)), 0)).toBeLessThan(1e-9),
        );
      }),
      { numRuns: 40 },
    );
  });
});

describe('a stretch that is looped', () => {
  const patch = patchOf(
    { slow: ['lfo', { rateHz: 0.7 }], o: ['oscillator', { baseHz: 220 }], f: ['filter'], v: ['vca', { bias: 5 }] },
    ['slow.out > o.pitch', 'o.saw > f.in', 'f.lowpass > v.in'],
  );
  const ears = { left: 'v.out', right: 'slow.out', gain: 1 };
  const from = Math.round(0.31 * RATE);
  const to = Math.round(0.5 * RATE);
  /** What the engine gives, sample by sample, and which patch time each sample has. */
  function heard(player: Player, seconds: number, socket = 'slow.out') {
    const [left, right] = [new Float32Array(128), new Float32Array(128)];
    const out: { readonly k: number; readonly v: number; readonly ear: number }[] = [];
    for (let i = 0; i < (seconds * RATE) / 128; i++) {
      const begun = player.engine.samples;
      player.next(left, right, 128);
      // Blocks in which the loop begins or turns are left out here.
      const whole = player.engine.samples === begun + 128 && !(begun < from && from < begun + 128);
      const volts = player.engine.buffer(socket);
      if (whole) for (let j = 0; j < 128; j++) out.push({ k: begun + j, v: volts[j]!, ear: left[j]! });
    }
    return out;
  }
  const expected = (() => {
    const engine = new LiveEngine(graphAt(patch, RATE));
    return played(engine, ['slow.out'], 2 * RATE)[0]!;
  })();

  it('is the same at every turn, and ends and begins at its samples', () => {
    const player = new Player(patch, RATE, ears);
    player.setLoop([0.31, 0.5]);
    const out = heard(player, 1.4);
    for (const { k, v } of out) expect(v).toBe(expected[k]);
    // 0.5 s, then 0.9 s of 0.19 s each.
    expect(Math.max(...out.map((s) => s.k))).toBeLessThan(to);
    expect(player.engine.samples).toBe(from + Math.ceil((1.4 * RATE) / 128) * 128 - to - 4 * (to - from));
  });
  it('that has passed is gone back to, unheard on the way, and true there', () => {
    const player = new Player(patch, RATE, ears);
    player.listening.setLevel(0);
    heard(player, 1.2);
    player.setLoop([0.31, 0.5]);
    const back = heard(player, 0.4);
    const sounding = back.findLastIndex((s) => s.k >= to);
    expect(sounding / RATE).toBeLessThan(0.015);
    // From where it begins on it sounds again.
    const first = back.findIndex((s) => s.k === from);
    expect(first).toBeGreaterThan(0);
    const quiet = back.slice(sounding + 1, first);
    expect(Math.max(0, ...quiet.map((s) => Math.abs(s.ear)))).toBeLessThan(0.01);
    for (const { k, v } of back.slice(first)) expect(v).toBe(expected[k]);
    expect(Math.max(...back.slice(first + 2000).map((s) => Math.abs(s.ear)))).toBeGreaterThan(0.08);
  });
  it('turns without a click, and ends where it is told to', () => {
    const player = new Player(patch, RATE, ears);
    player.listening.setLevel(0);
    const steady = heard(player, 1);
    const steepest = (x: readonly { readonly ear: number }[]): number =>
      x.slice(1).reduce((most, s, i) => Math.max(most, Math.abs(s.ear - x[i]!.ear)), 0);
    const free = steepest(steady.slice(RATE / 2));
    player.setLoop([1.1, 1.234]);
    const [left, right] = [new Float32Array(128), new Float32Array(128)];
    const ear = Array.from({ length: RATE / 128 }, () => {
      player.next(left, right, 128);
      return [...left].map((v) => ({ ear: v }));
    }).flat();
    expect(steepest(ear)).toBeLessThan(1.2 * free + (2 * 0.5 * Math.PI) / 2 / (0.01 * RATE));
    player.setLoop(null);
    heard(player, 0.5);
    expect(player.engine.samples).toBeGreaterThan(1.4 * RATE);
  });
  it('goes on with a knob that is turned and a cable that is pulled meanwhile', () => {
    const player = new Player(patch, RATE, ears);
    player.setLoop([0.1, 0.2]);
    heard(player, 0.35);
    const turned = { ...patch, modules: patch.modules.map((m) => (m.id === 'v' ? { ...m, params: { bias: 2 } } : m)) };
    player.edit(turned, ears);
    heard(player, 0.3);
    player.edit({ ...turned, cables: turned.cables.slice(1) }, ears);
    const out = heard(player, 0.5);
    for (const { k, v } of out) expect(v).toBe(expected[k]);
  });
});
