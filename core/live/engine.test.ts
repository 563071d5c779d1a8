import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { completeParams } from '../document/params';
import type { Patch } from '../document/types';
import { applyEdits } from '../edit/edit';
import type { Edit } from '../edit/edit';
import { buildGraph } from '../graph/graph';
import type { Graph } from '../graph/graph';
import { allKinds } from '../kinds';
import { continuousOf } from '../kinds/knobs';
import { AtomStore } from '../law/builder';
import { constant } from '../law/affine';
import type { Affine } from '../law/affine';
import { simulateGraph } from '../simulate/simulate';
import { patchOf } from '../testing/patch';
import { randomPatch } from '../testing/randomPatch';
import { LiveEngine } from './engine';
import { RAMP_SECONDS } from './ramps';

const RATE = 48_000;
const atRate = (patch: Patch, duration = 0.2): Graph => ({
  ...buildGraph({ ...patch, settings: { ...patch.settings, duration } }),
  sampleRate: RATE,
});

/** Plays on and collects what comes out of some sockets. */
function played(engine: LiveEngine, sockets: readonly string[], samples: number, block = engine.block): Float64Array[] {
  const traces = sockets.map(() => new Float64Array(samples));
  for (let k = 0; k < samples; k += block) {
    const count = Math.min(block, samples - k);
    engine.advance(count);
    sockets.forEach((s, i) => traces[i]!.set(engine.buffer(s).subarray(0, count), k));
  }
  return traces;
}

const remembers = (patch: Patch): boolean =>
  buildGraph(patch).modules.some(({ kind, params, inputs }) =>
    kind.memory(params, (name) => inputs.some((s) => s.spec.name === name && s.connected)),
  );
const outputsOf = (graph: Graph): string[] => graph.modules.flatMap((m) => m.outputs.map((o) => o.socket));

describe('a live run without edits', () => {
  it('gives the samples of a simulation, at block sizes that divide nothing', () => {
    fc.assert(
      fc.property(fc.integer({ min: 1, max: 1e6 }), fc.integer({ min: 1, max: 300 }), (seed, block) => {
        const graph = atRate(randomPatch(seed), 0.05);
        const sockets = outputsOf(graph);
        const { traces, samples } = simulateGraph(graph, { traces: sockets });
        const live = played(new LiveEngine(graph, { block }), sockets, samples);
        sockets.forEach((s, i) => {
          const expected = traces.get(s)!;
          const most = expected.reduce((m, v, k) => Math.max(m, Math.abs(v - live[i]![k]!)), 0);
          expect(most, s).toBeLessThanOrEqual(1e-9);
        });
      }),
      { numRuns: 60 },
    );
  });
});

describe('what modules remember', () => {
  /** The greatest difference to a run without a break, after something was done to the engine on the way. */
  function apart(seed: number, done: (graph: Graph) => Graph): number {
    const graph = atRate(randomPatch(seed), 0.06);
    const sockets = outputsOf(graph);
    const { traces, samples } = simulateGraph(graph, { traces: sockets });
    const engine = new LiveEngine(graph);
    const before = 1280;
    played(engine, [], before);
    engine.edit(done(graph));
    const live = played(engine, sockets, samples - before);
    return sockets.reduce((most, s, i) => {
      const expected = traces.get(s)!.subarray(before);
      return expected.reduce((m, v, k) => Math.max(m, Math.abs(v - live[i]![k]!)), most);
    }, 0);
  }
  const seeds = fc.integer({ min: 1, max: 1e6 });

  it('outlasts another layout', () => {
    const withMore = (graph: Graph): Graph => {
      const more = { id: 'more', kind: 'offset', params: {} };
      return { ...buildGraph({ ...graph.patch, modules: [...graph.patch.modules, more] }), sampleRate: RATE };
    };
    fc.assert(
      fc.property(seeds, (seed) => apart(seed, withMore) <= 1e-9),
      { numRuns: 60 },
    );
  });

  it('outlasts kernels that are made anew', () => {
    const anew = (graph: Graph): Graph => ({
      ...graph,
      modules: graph.modules.map((m) => ({ ...m, params: { ...m.params } })),
    });
    // Of the first an envelope's time is moved by a voltage, and was read anew with its kernel.
    fc.assert(
      fc.property(seeds, (seed) => apart(seed, anew) <= 1e-9),
      { numRuns: 60, examples: [[477_612]] },
    );
  });
});

const chain = patchOf(
  { slow: ['lfo', { rateHz: 3 }], trim: ['attenuverter', { amount: 0.2 }], lag: ['slew', { rise: 0.05, fall: 0.05 }] },
  ['slow.out > trim.in', 'trim.out > lag.in'],
);

function edited(patch: Patch, ...edits: Edit[]): Graph {
  return atRate(applyEdits(patch, edits));
}

describe('a live run through edits', () => {
  it('moves a knob there within 5 ms, exactly linear, and is the other patch from then on', () => {
    const engine = new LiveEngine(atRate(chain));
    const [slow, trim] = played(engine, ['slow.out', 'trim.out'], 12_800);
    expect(trim!.at(-1)).toBeCloseTo(0.2 * slow!.at(-1)!, 12);
    engine.edit(edited(chain, { do: 'set', module: 'trim', param: 'amount', value: 1 }));
    const [slow2, trim2] = played(engine, ['slow.out', 'trim.out'], 1280);
    const over = Math.round(RAMP_SECONDS * engine.sampleRate);
    for (let k = 0; k < 1280; k++) {
      const amount = k < over - 1 ? 0.2 + (0.8 * (k + 1)) / over : 1;
      expect(Math.abs(trim2![k]! - amount * slow2![k]!)).toBeLessThan(1e-12);
    }
  });

  it('keeps phases, lags and lines when a cable, a stage or a kind changes', () => {
    const whole = atRate(chain, 1);
    const { traces } = simulateGraph(whole, { traces: ['slow.out', 'lag.out'] });
    const engine = new LiveEngine(whole);
    played(engine, [], 12_800);
    engine.edit(
      edited(
        chain,
        { do: 'add', module: { id: 'more', kind: 'offset', params: {} } },
        { do: 'plug', cable: { from: 'lag.out', to: 'more.in' } },
      ),
    );
    const [slow, lag, out] = played(engine, ['slow.out', 'lag.out', 'more.out'], 6400);
    for (let k = 0; k < 6400; k++) {
      expect(Math.abs(slow![k]! - traces.get('slow.out')![12_800 + k]!)).toBeLessThan(1e-9);
      expect(Math.abs(lag![k]! - traces.get('lag.out')![12_800 + k]!)).toBeLessThan(1e-9);
      expect(out![k]).toBe(lag![k]);
    }
  });
});

describe('a knob that is declared linear', () => {
  it('moves the outputs exactly in a line, whatever comes in', () => {
    const between = (x: number, [lo, hi]: readonly [number, number]): number => lo + x * (hi - lo);
    const inputs = fc.array(fc.double({ min: -10, max: 10, noNaN: true }), { minLength: 8, maxLength: 8 });
    fc.assert(
      fc.property(fc.nat(1e6), inputs, fc.double({ min: 0, max: 1, noNaN: true }), (pick, volts, share) => {
        const declared = allKinds.flatMap((kind) => {
          const params = completeParams(kind, undefined, 120);
          return (kind.panel?.linear?.(params) ?? []).map((param) => ({ kind, params, param }));
        });
        const { kind, params, param } = declared[pick % declared.length]!;
        const knob = continuousOf(kind, params).find((k) => k.name === param)!;
        const at = (value: number): number[] => {
          const set = { ...params, [param]: value };
          const io = {
            in: (name: string) => constant(volts[kind.inputs(set).findIndex((s) => s.name === name)] ?? 0),
            connected: () => true,
            symbol: () => constant(NaN),
            range: (x: Affine): [number, number] => [x.lo, x.hi],
            loading: { potLoad: null, weights: [1, 1, 1, 1] },
          };
          return Object.values(kind.law(new AtomStore(), set, io)).map((x) => x.lo);
        };
        const [low, high, middle] = [at(knob.min), at(knob.max), at(between(share, [knob.min, knob.max]))];
        low.forEach((v, i) => expect(middle[i]).toBeCloseTo(between(share, [v, high[i]!]), 9));
      }),
      { numRuns: 300 },
    );
  });
});

describe('a live run after an edit is a fresh one', () => {
  it('where a passive part is turned: its source’s load is that of now', () => {
    const loaded = patchOf(
      {
        hold: ['constant', { volts: 5 }],
        pot: ['attenuator', { build: 'passive', potOhms: 10_000, amount: 1 }],
        x: ['offset'],
      },
      ['hold.out > pot.in', 'pot.out > x.in'],
    );
    const withOhms: Patch = {
      ...loaded,
      modules: loaded.modules.map((m) => (m.id === 'hold' ? { ...m, outputOhms: { out: 10_000 } } : m)),
    };
    const turn: Edit = { do: 'set', module: 'pot', param: 'amount', value: 0.5 };
    const engine = new LiveEngine(atRate(withOhms));
    played(engine, [], 256);
    engine.edit(edited(withOhms, turn));
    const sockets = ['hold.out', 'pot.out'];
    const live = played(engine, sockets, 512).map((t) => t.at(-1));
    const fresh = played(new LiveEngine(edited(withOhms, turn)), sockets, 512).map((t) => t.at(-1));
    expect(live).toEqual(fresh);
  });

  it('in any patch without memory, whatever is set', () => {
    const kinds = [
      'constant',
      'attenuator',
      'attenuverter',
      'offset',
      'mixer',
      'mult',
      'junction',
      'rectifier',
      'vca',
      'polarizer',
      'inverter',
    ];
    fc.assert(
      fc.property(fc.integer({ min: 1, max: 1e6 }), (seed) => {
        const [before, after] = [seed, seed + 1].map((s) => randomPatch(s, { kinds, modules: 6 })) as [Patch, Patch];
        // The same modules, other settings of those that have them in both.
        const edits = before.modules.flatMap((m, i): Edit[] => {
          const other = after.modules[i];
          return other?.kind === m.kind ? [{ do: 'replace', module: { ...m, params: other.params ?? {} } }] : [];
        });
        // A VCA that is built AC coupled remembers.
        fc.pre(!remembers(before) && !remembers(applyEdits(before, edits)));
        const engine = new LiveEngine(atRate(before));
        played(engine, [], 256);
        const now = edited(before, ...edits);
        engine.edit(now);
        const sockets = outputsOf(now);
        const live = played(engine, sockets, 512).map((t) => t.at(-1) ?? NaN);
        const fresh = played(new LiveEngine(now), sockets, 512).map((t) => t.at(-1) ?? NaN);
        live.forEach((v, i) => expect(v, sockets[i]).toBeCloseTo(fresh[i] ?? NaN, 9));
      }),
      { numRuns: 80 },
    );
  });

  it('of a contour whose mode is changed, once it had its time', () => {
    const held = (mode: string): Patch =>
      patchOf(
        {
          gate: ['constant', { volts: 5 }],
          env: ['envelope', { mode, attack: 0.002, decay: 0.004, release: 0.004, peakVolts: 8, sustain: 0.5 }],
        },
        ['gate.out > env.gate'],
      );
    const modes = ['adsr', 'ar', 'ad'] as const;
    const ends = { adsr: 4, ar: 8, ad: 0 } as const;
    for (const from of modes)
      for (const to of modes)
        for (const after of [64, 192, 4800]) {
          // What has run out waits for the next gate.
          if (from === 'ad' && after === 4800) continue;
          const engine = new LiveEngine(atRate(held(from)));
          played(engine, [], after, 32);
          const [before] = played(engine, ['env.out'], 32, 32);
          engine.edit(edited(held(from), { do: 'set', module: 'env', param: 'mode', value: to }));
          const [out] = played(engine, ['env.out'], 4800);
          expect([from, to, after, out!.at(-1)]).toEqual([from, to, after, expect.closeTo(ends[to], 6)]);
          // It goes on from where it was.
          if (from !== to) expect(Math.abs(out![0]! - before!.at(-1)!)).toBeLessThan(0.5);
        }
  });

  it('of a contour whose gate is down, too: no mode holds it up', () => {
    const struck = patchOf(
      { beat: ['clock', { bpm: 60, width: 0.01 }], env: ['envelope', { mode: 'ad', attack: 0.001, decay: 0.5 }] },
      ['beat.out > env.gate'],
    );
    const engine = new LiveEngine(atRate(struck));
    played(engine, [], 4800);
    engine.edit(edited(struck, { do: 'set', module: 'env', param: 'mode', value: 'adsr' }));
    const [out] = played(engine, ['env.out'], 38_400);
    expect(out!.at(-1)).toBeCloseTo(0, 6);
  });
});
