import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { parsePatch } from '../document/parse';
import { printPatch } from '../document/print';
import type { Patch } from '../document/types';
import { predict } from '../answers/predict';
import { randomPatch } from '../testing/randomPatch';
import { simulate } from '../simulate/simulate';
import { buildGraph } from './graph';
import { Wiring } from './wiring';

function patchOf(modules: object[], rest: object = {}): Patch {
  const parsed = parsePatch({ format: 'fenvo.patch', version: 1, modules, ...rest });
  if (!parsed.ok) throw new Error(parsed.errors.map((e) => `${e.path}: ${e.message}`).join('\n'));
  return parsed.value;
}

const fader = (id: string, volts: number) => ({ id, kind: 'constant', params: { volts } });

describe('a normal', () => {
  it.each(['electrical', 'ideal'])('into a junction gives its voltage (%s)', (loading) => {
    const settings = { loading };
    const byVolts = patchOf([{ id: 'bus', kind: 'junction' }], { settings, normals: [{ to: 'bus.in1', volts: 5 }] });
    expect(predict(byVolts).outputs['bus.out']?.bound[1]).toBeCloseTo(5, 4);
    const byOutput = patchOf([fader('f', 4), { id: 'bus', kind: 'junction' }], {
      settings,
      normals: [{ to: 'bus.in1', from: 'f.out' }],
    });
    expect(predict(byOutput).outputs['bus.out']?.bound[1]).toBeCloseTo(4, 4);
  });

  it('weighs in a junction as a cable from the same output does', () => {
    fc.assert(
      fc.property(fc.double({ min: -5, max: 5, noNaN: true }), fc.integer({ min: 0, max: 20_000 }), (volts, ohms) => {
        const modules = [
          { ...fader('a', volts), outputOhms: { out: ohms } },
          fader('b', 3),
          { id: 'bus', kind: 'junction' },
        ];
        const cable = { from: 'b.out', to: 'bus.in2' };
        const plugged = patchOf(modules, { cables: [{ from: 'a.out', to: 'bus.in1' }, cable] });
        const normalled = patchOf(modules, { cables: [cable], normals: [{ to: 'bus.in1', from: 'a.out' }] });
        const [one, other] = [plugged, normalled].map((p) => predict(p).outputs['bus.out']?.bound[0] ?? NaN);
        expect(other).toBeCloseTo(one ?? NaN, 9);
      }),
      { numRuns: 50 },
    );
  });

  it('names the input whose cable it hangs on, and that it is broken', () => {
    const amps = ['one', 'two', 'three'].map((id) => ({ id, kind: 'vca' }));
    const cascade = patchOf([fader('f', 1), ...amps], {
      cables: [{ from: 'f.out', to: 'one.cv' }],
      normals: [
        { to: 'two.cv', from: 'one.cv' },
        { to: 'three.cv', from: 'two.cv' },
        { to: 'two.chain', from: 'one.out', brokenBy: 'source' },
      ],
    });
    const wiring = new Wiring(cascade);
    expect(wiring.feed('three.cv')).toEqual({ by: 'normal', from: 'f.out', via: 'one.cv' });
    expect(wiring.wires.map((w) => `${w.by} ${w.to}`)).toEqual([
      'cable one.cv',
      'normal two.cv',
      'normal two.chain',
      'normal three.cv',
    ]);
    const broken = new Wiring({ ...cascade, cables: [...cascade.cables, { from: 'one.out', to: 'three.in' }] });
    expect(broken.feed('two.chain')).toEqual({ by: 'volts', volts: 0, declared: false });
  });
});

describe('a hand', () => {
  it('on a rate does not beat the tempo', () => {
    const patch = patchOf([{ id: 'l', kind: 'lfo', params: { beats: 1 } }], {
      settings: { bpm: 120 },
      hands: [{ at: 'l.rateHz', points: [{ t: 0, value: 7 }] }],
    });
    expect(predict(patch).outputs['l.out']?.repeatsEvery).toBeCloseTo(0.5, 12);
    const [m] = buildGraph(patch).modules;
    expect(m?.params.rateHz).toBe(2);
    expect(m?.hands).toEqual([]);
    expect([...(m?.overridden ?? [])]).toEqual(['rateHz']);
  });

  it('overrides its knob where it begins', () => {
    const patch = patchOf([{ id: 't', kind: 'offset', params: { amount: 0.2 } }], {
      hands: [{ at: 't.amount', points: [{ t: 0, value: -0.5 }] }],
    });
    const [m] = buildGraph(patch).modules;
    expect(m?.params.amount).toBe(-0.5);
    expect(m?.overridden.has('amount')).toBe(true);
  });
});

describe('random wirings of cables, normals, hands and bypassed stages', () => {
  it('are what a plain document says, input by input, and what is seen lies within the bound', () => {
    fc.assert(
      fc.property(fc.integer({ min: 1, max: 100_000 }), (seed) => {
        const options = { modules: 8, links: true, bypass: true, hands: true, loops: seed % 3 === 0, duration: 0.05 };
        const patch = randomPatch(seed, options);
        expect(parsePatch(printPatch(patch)).ok).toBe(true);
        const { wiring, modules } = buildGraph(patch);
        const into = new Map(wiring.wires.map((w) => [w.to, w]));
        for (const m of modules) {
          for (const s of m.inputs) {
            const wire = into.get(s.socket);
            const from =
              s.driver.type === 'output' ? modules[s.driver.module]?.outputs[s.driver.output]?.socket : undefined;
            expect(wire?.from).toBe(from);
            expect(wire?.by === 'cable').toBe(patch.cables.some((c) => c.to === s.socket));
          }
        }
        const predicted = predict(patch, { cures: false });
        for (const { bound, seen } of [...Object.values(predicted.outputs), ...Object.values(predicted.inputs)]) {
          if (!seen) continue;
          expect(seen[0]).toBeGreaterThanOrEqual(bound[0] - 1e-9);
          expect(seen[1]).toBeLessThanOrEqual(bound[1] + 1e-9);
        }
      }),
      { numRuns: 60 },
    );
  });

  it('simulate alike with a normal and with the cable that stands for it, where nothing has a resistance', () => {
    fc.assert(
      fc.property(fc.integer({ min: 1, max: 100_000 }), (seed) => {
        const random = randomPatch(seed, { modules: 7, links: true, duration: 0.03 });
        const patch = { ...random, settings: { ...random.settings, loading: 'ideal' as const } };
        const plain = patch.normals.every((n) => !('from' in n) || n.brokenBy === undefined);
        fc.pre(plain);
        const { wires } = new Wiring(patch);
        const cabled = {
          ...patch,
          cables: wires.map(({ from, to }) => ({ from, to })),
          normals: patch.normals.filter((n) => !wires.some((w) => w.to === n.to)),
        };
        const [a, b] = [simulate(patch), simulate(cabled)];
        for (const [socket, seen] of a.outputs) {
          expect(b.outputs.get(socket)?.min).toBeCloseTo(seen.min, 9);
          expect(b.outputs.get(socket)?.max).toBeCloseTo(seen.max, 9);
        }
      }),
      { numRuns: 40 },
    );
  });
});
