import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import type { Patch } from '../document/types';
import { completeParams } from '../document/params';
import { applyEdits } from '../edit/edit';
import { allKinds } from '../kinds';
import { continuousOf } from '../kinds/knobs';
import { patchOf } from '../testing/patch';
import { valueAt } from '../units/knob';
import { LiveEngine } from './engine';
import { graphAt } from './player';
import { RAMP_SECONDS, rampSeconds } from './ramps';

const RATE = 9600;
const OVER = Math.round(RAMP_SECONDS * RATE);

const played = (engine: LiveEngine, socket: string, samples: number, block = 32): number[] =>
  Array.from({ length: Math.ceil(samples / block) }, () => {
    engine.advance(block);
    return [...engine.buffer(socket).subarray(0, block)];
  }).flat();

/** The same of several sockets, in blocks of 64. */
function allPlayed(engine: LiveEngine, sockets: readonly string[], samples: number): number[][] {
  const traces = sockets.map((): number[] => []);
  for (let k = 0; k < samples; k += 64) {
    engine.advance(64);
    sockets.forEach((s, i) => traces[i]!.push(...engine.buffer(s).subarray(0, 64)));
  }
  return traces;
}

/** The furthest that a trace goes from one sample to the next. */
const steepest = (trace: readonly number[]): number =>
  trace.slice(1).reduce((most, v, i) => Math.max(most, Math.abs(v - trace[i]!)), 0);

const set = (patch: Patch, param: string, value: number): Patch =>
  applyEdits(patch, [{ do: 'set', module: 'm', param, value }]);

describe('a knob that is turned while it is heard', () => {
  const knobs = allKinds.flatMap((kind) => {
    const params = completeParams(kind, undefined, 120);
    const timeless = kind.category !== 'source' && !kind.memory(params, () => true) && kind.outputs(params).length > 0;
    return timeless ? continuousOf(kind, params).map((knob) => ({ kind, params, knob })) : [];
  });
  it.each(knobs.map((k) => [`${k.kind.name}.${k.knob.name}`, k] as const))(
    'steps no further between samples than its own law: %s',
    (_, { kind, params, knob }) => {
      const inputs = kind.inputs(params).map((s) => s.name);
      const patch = patchOf(
        {
          m: [kind.name],
          ...Object.fromEntries(inputs.map((_name, i) => [`c${i}`, ['constant', { volts: 3 - i / 2 }]])),
        },
        inputs.map((name, i) => `c${i}.out > m.${name}`),
        { sampleRate: RATE },
      );
      for (const output of kind.outputs(params)) {
        const socket = `m.${output}`;
        const engine = new LiveEngine(graphAt(set(patch, knob.name, knob.min), RATE), { block: 32 });
        const before = played(engine, socket, 64);
        engine.edit(graphAt(set(patch, knob.name, knob.max), RATE));
        const heard = [before.at(-1)!, ...played(engine, socket, 2 * OVER)];
        const at = (share: number): number => {
          const value = knob.min + share * (knob.max - knob.min);
          return played(new LiveEngine(graphAt(set(patch, knob.name, value), RATE), { block: 1 }), socket, 1, 1)[0]!;
        };
        const law = Array.from({ length: OVER + 1 }, (__, k) => at(k / OVER));
        expect(steepest(heard)).toBeLessThanOrEqual(1.2 * steepest(law) + 1e-9);
        expect(heard.at(-1)).toBeCloseTo(law.at(-1)!, 9);
      }
    },
  );

  it('goes on from where it stands, however often it is turned on its way', () => {
    const patch = patchOf(
      { c: ['constant', { volts: 10, highVolts: 10 }], m: ['attenuverter', { amount: 0 }] },
      ['c.out > m.in'],
      {
        sampleRate: RATE,
      },
    );
    const turn = fc.record({
      value: fc.double({ min: -1, max: 1, noNaN: true }),
      samples: fc.integer({ min: 0, max: 70 }),
    });
    fc.assert(
      fc.property(fc.array(turn, { minLength: 1, maxLength: 20 }), (turns) => {
        const engine = new LiveEngine(graphAt(patch, RATE), { block: 1 });
        const heard = [0];
        for (const { value, samples } of turns) {
          engine.edit(graphAt(set(patch, 'amount', value), RATE));
          heard.push(...played(engine, 'm.out', samples, 1));
        }
        heard.push(...played(engine, 'm.out', OVER, 1));
        // End to end is 20 V.
        expect(steepest(heard)).toBeLessThanOrEqual(20 / OVER + 1e-9);
        expect(heard.at(-1)).toBeCloseTo(10 * turns.at(-1)!.value, 9);
      }),
      { numRuns: 60 },
    );
  });

  it('keeps on its way while another cable is patched', () => {
    const patch = patchOf(
      { c: ['constant', { volts: 10, highVolts: 10 }], m: ['attenuverter', { amount: 0 }], x: ['offset'] },
      ['c.out > m.in'],
      { sampleRate: RATE },
    );
    const engine = new LiveEngine(graphAt(patch, RATE), { block: 8 });
    const turned = set(patch, 'amount', 1);
    engine.edit(graphAt(turned, RATE));
    const first = played(engine, 'm.out', 16, 8);
    engine.edit(graphAt(applyEdits(turned, [{ do: 'plug', cable: { from: 'm.out', to: 'x.in' } }]), RATE));
    const heard = [0, ...first, ...played(engine, 'x.in', 2 * OVER, 8)];
    expect(steepest(heard)).toBeLessThanOrEqual(10 / OVER + 1e-9);
    expect(heard.at(-1)).toBeCloseTo(10, 9);
  });
});

describe('a knob of what remembers, or of a source, that is turned while it is heard', () => {
  const knobs = allKinds.flatMap((kind) => {
    const params = completeParams(kind, undefined, 120);
    const moves = kind.category === 'source' || kind.memory(params, () => true);
    return moves && kind.outputs(params).length > 0
      ? continuousOf(kind, params).map((knob) => ({ kind, params, knob }))
      : [];
  });
  it.each(knobs.map((k) => [`${k.kind.name}.${k.knob.name}`, k] as const))(
    'steps no further than it does anyway, and than its ramp: %s',
    (_, { kind, params, knob }) => {
      const inputs = kind.inputs(params).map((s) => s.name);
      // Smooth voltages everywhere, so that what is cut is seen.
      const patch = patchOf(
        {
          m: [kind.name],
          ...Object.fromEntries(
            inputs.map((_name, i) => [`c${i}`, ['lfo', { rateHz: 7 + 5 * i, highVolts: 3, lowVolts: -2 }]]),
          ),
        },
        inputs.map((name, i) => `c${i}.out > m.${name}`),
        { sampleRate: RATE },
      );
      const at = (share: number): number => valueAt({ ...knob, taper: knob.spec.taper }, share);
      const begun = RATE / 8;
      // Gates flip where a threshold passes: that is their law.
      const gates = kind.timing?.gates ?? [];
      const sockets = kind
        .outputs(params)
        .filter((o) => !gates.includes(o))
        .map((o) => `m.${o}`);
      const still = (share: number): number[][] =>
        allPlayed(
          new LiveEngine(graphAt(set(patch, knob.name, at(share)), RATE), { block: 64 }),
          sockets,
          begun + OVER,
        );
      const engine = new LiveEngine(graphAt(set(patch, knob.name, at(0)), RATE), { block: 64 });
      const before = allPlayed(engine, sockets, begun);
      engine.edit(graphAt(set(patch, knob.name, at(1)), RATE));
      const after = allPlayed(engine, sockets, OVER);
      // Where it would be at each moment, had the knob always stood where it stands then.
      const runs = Array.from({ length: OVER + 1 }, (__, k) => still(k / OVER));
      sockets.forEach((socket, i) => {
        const last = before[i]!.length - 1;
        const heard = [before[i]![last]!, ...after[i]!];
        const law = runs.map((x, k) => x[i]![last + k]!);
        const own = Math.max(...runs.map((x) => steepest(x[i]!)));
        expect(steepest(heard), socket).toBeLessThanOrEqual(1.2 * (own + steepest(law)) + 1e-6);
      });
    },
  );
});

describe('a delay whose time is turned', () => {
  it('glides: what is heard bends by an octave at most, and is the new echo at the end', () => {
    const [hz, rate] = [100, 8000];
    const patch = patchOf(
      { o: ['oscillator', { baseHz: hz }], m: ['delay', { seconds: 0.2, mix: 1, feedbackAmount: 0 }] },
      ['o.sine > m.in'],
      { sampleRate: rate },
    );
    const engine = new LiveEngine(graphAt(patch, rate));
    const before = played(engine, 'm.out', rate, 128);
    const steady = steepest(before.slice(-rate / 4));
    for (const seconds of [0.35, 0.1]) {
      engine.edit(graphAt(set(patch, 'seconds', seconds), rate));
      // Half a second of delay a second: the pitch goes up or down by half of itself.
      const heard = [before.at(-1)!, ...played(engine, 'm.out', rate, 128)];
      expect(steepest(heard.slice(1))).toBeLessThan(1.2 * 1.5 * steady);
      const fresh = new LiveEngine(graphAt(set(patch, 'seconds', seconds), rate));
      const other = played(fresh, 'm.out', engine.samples, 128);
      expect(heard.at(-1)).toBeCloseTo(other.at(-1)!, 2);
    }
  });
  it('takes half a second for a quarter of one; other knobs 5 ms', () => {
    expect(rampSeconds({ glides: 0.5 }, 0.25, 0.5)).toBe(0.5);
    expect(rampSeconds({}, 0, 5)).toBe(RAMP_SECONDS);
  });
});
