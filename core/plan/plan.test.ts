import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { predict } from '../answers/predict';
import { parsePatch } from '../document/parse';
import { printPatch } from '../document/print';
import { standingsOf } from '../solve/problem/runner';
import { patchOf } from '../testing/patch';
import { rackOf } from '../testing/racks';
import { planChain } from './plan';
import { planEnds } from './planEnds';
import { readEndsRequest, readPlanRequest } from './request';
import type { Wish } from './request';

const cutoff: Wish = { quantity: 'frequency', low: 250, high: 4000 };
const kindsOf = (p: { readonly stages: readonly { readonly kind: string }[] }) => p.stages.map((s) => s.kind);

describe('planning a chain', () => {
  it('opens a filter between two frequencies, the fewest stages first, every claim predicted', () => {
    const { proposals } = planChain({ from: 'lfo', to: 'filter.cutoff', target: cutoff });
    expect(proposals.length).toBeGreaterThan(1);
    for (const p of proposals) {
      expect(p.met).toBe(true);
      const [miss] = standingsOf(p.patch);
      expect(miss).toMatchObject({ met: true });
      const reading = predict(p.patch, { simulation: false }).readings.find((r) => r.at === 'filter.cutoff')!;
      expect(reading.low).toBeCloseTo(250, 0);
      expect(reading.high).toBeCloseTo(4000, -1);
      expect(p.reading).toMatchObject({ low: reading.low, high: reading.high });
      expect(parsePatch(JSON.parse(JSON.stringify(printPatch(p.patch)))).ok).toBe(true);
    }
    const lengths = proposals.map((p) => p.stages.length);
    expect(lengths).toEqual(lengths.toSorted((a, b) => a - b));
    expect(new Set(proposals.map((p) => kindsOf(p).join(' '))).size).toBe(proposals.length);
  });

  it('counts a fader over its travel, and leaves it where it stands', () => {
    const patch = patchOf(
      { wheel: ['constant', { volts: 1, lowVolts: 0, highVolts: 5 }], tone: ['filter', { cutoffHz: 100 }] },
      [],
    );
    const [best] = planChain({ patch, from: 'wheel.out', to: 'tone.cutoff', target: cutoff }).proposals;
    expect(best!.met).toBe(true);
    expect(best!.reading).toMatchObject({ low: expect.closeTo(250, 0), high: expect.closeTo(4000, -1) });
    expect(best!.patch.hands).toEqual([]);
    expect(best!.patch.modules.find((m) => m.id === 'wheel')!.params!.volts).toBe(1);
    const [told] = predict(best!.patch).readings.filter((r) => r.at === 'tone.cutoff');
    expect(told).toMatchObject({ fadersLow: expect.closeTo(250, 0), fadersHigh: expect.closeTo(4000, -1) });
    expect(told!.high).toBeLessThan(500);
  });

  it('moves no knob that is locked, and keeps the patch’s other cables', () => {
    const patch = patchOf(
      {
        slow: ['lfo'],
        amp: ['vca', { cvAmount: 1 }, { locked: ['cvAmount', 'bias'] }],
        tone: ['oscillator'],
      },
      ['tone.saw > amp.in'],
    );
    const [best] = planChain({
      patch,
      from: 'slow.out',
      to: 'amp.cv',
      target: { quantity: 'volts', low: 0, high: 5 },
    }).proposals;
    expect(best!.met).toBe(true);
    expect(best!.stages).toHaveLength(1);
    expect(best!.patch.modules.find((m) => m.id === 'amp')).toEqual(patch.modules[1]);
    expect(best!.patch.cables).toContainEqual({ from: 'tone.saw', to: 'amp.in' });
  });

  it('with a rack takes only what is free, each channel once, within what it holds', () => {
    const rack = rackOf({
      quad: {
        a: { kind: 'attenuverter', fixed: { maxAmount: 1 } },
        b: { kind: 'attenuverter', fixed: { maxAmount: 1 } },
      },
      mix: { a: { kind: 'mixer', fixed: { inputs: 3, bipolar: false, maxGain: 1 }, ranges: { biasVolts: [-5, 5] } } },
    });
    const patch = patchOf(
      {
        slow: ['lfo'],
        amp: ['vca', {}, { locked: ['cvAmount', 'bias'] }],
        used: ['attenuverter', {}, { rack: 'quad/a' }],
      },
      ['used.out > amp.in'],
    );
    const { proposals } = planChain(
      { patch, from: 'slow.out', to: 'amp.cv', target: { quantity: 'volts', low: 0, high: 5 } },
      rack,
    );
    expect(proposals[0]!.met).toBe(true);
    expect(kindsOf(proposals[0]!)).toEqual(['mixer']);
    expect(proposals[0]!.stages[0]).toMatchObject({ rack: 'mix/a' });
    expect(proposals[0]!.stages[0]!.standIn).toContain('offset knob');
    for (const p of proposals) {
      expect(p.uses).not.toContain('quad/a');
      expect(new Set(p.uses).size).toBe(p.uses.length);
    }
  });

  it('says the nearest where nothing does', () => {
    const { proposals } = planChain(
      { from: 'lfo', to: 'vca.cv', target: { quantity: 'volts', low: -11, high: 40 }, stages: 2 },
      rackOf({ m: { a: 'inverter' } }),
    );
    expect(proposals.length).toBeGreaterThan(0);
    expect(proposals.every((p) => !p.met && p.error > 0)).toBe(true);
    expect(proposals[0]!.why).toContain('closest match');
  });

  it('an envelope comes with the clock that it needs', () => {
    const { proposals } = planChain({
      from: 'envelope',
      to: 'vca.cv',
      target: { quantity: 'gain', low: 'silent', high: 0 },
    });
    expect(proposals[0]!.met).toBe(true);
    expect(proposals[0]!.patch.cables.some((c) => c.to === 'envelope.gate')).toBe(true);
  });

  it('reaches several ends from one source, each its own way', () => {
    const patch = patchOf({ hand: ['lfo'], dark: ['filter'], bright: ['filter'], amp: ['vca'] });
    const plan = planEnds({
      patch,
      from: 'hand.out',
      ends: [
        { to: 'dark.cutoff', target: cutoff, direction: 'with' },
        { to: 'bright.cutoff', target: { quantity: 'frequency', low: 500, high: 2000 }, direction: 'against' },
        { to: 'amp.cv', target: { quantity: 'gain', low: -12, high: 0 }, direction: 'with' },
      ],
    });
    expect(plan.met).toBe(true);
    expect(standingsOf(plan.patch).every((m) => m.met)).toBe(true);
    expect(plan.patch.targets).toHaveLength(3);
  });

  it('turns a scale over where nothing but that goes against the source, if its channel lets it', () => {
    const patch = patchOf({ hand: ['lfo'], dark: ['filter', {}, { locked: ['cutoffHz', 'cutoffAmount'] }] });
    const against = (channel: object) => {
      const rack = rackOf({ lift: { a: { kind: 'offset', ...channel } } });
      const target = { quantity: 'frequency', low: 500, high: 2000 } as const;
      return planChain({ patch, from: 'hand.out', to: 'dark.cutoff', target, direction: 'against' }, rack)
        .proposals[0]!;
    };
    const turned = against({});
    expect([turned.met, turned.uses]).toEqual([true, ['lift/a']]);
    expect(turned.stages[0]!.params.amount).toBeCloseTo(-0.2, 9);
    expect([turned.reading!.low, turned.reading!.high]).toEqual([expect.closeTo(500, 6), expect.closeTo(2000, 6)]);
    expect(against({ ranges: { amount: [0, 1] } }).met).toBe(false);
  });

  it('any range within what a filter answers to is met by one stage at most', () => {
    fc.assert(
      fc.property(
        fc.double({ min: 30, max: 900, noNaN: true }),
        fc.double({ min: 1.5, max: 12, noNaN: true }),
        (low, times) => {
          const [best] = planChain({
            from: 'lfo',
            to: 'filter.cutoff',
            target: { quantity: 'frequency', low, high: low * times },
          }).proposals;
          expect({ low, times, met: best?.met }).toEqual({ low, times, met: true });
          expect(best!.stages.length).toBeLessThanOrEqual(1);
          expect(standingsOf(best!.patch).every((m) => m.met)).toBe(true);
        },
      ),
      { numRuns: 8 },
    );
  });

  it('reads requests for several ends, and names what is wrong with them', () => {
    const patch = {
      format: 'fenvo.patch',
      version: 1,
      modules: [
        { id: 'a', kind: 'lfo' },
        { id: 'tone', kind: 'filter' },
      ],
    };
    const faults = (x: object) => {
      const read = readEndsRequest({ patch, from: 'a.out', ...x });
      return read.ok ? [] : read.errors.map((e) => e.path);
    };
    const end = { to: 'tone.cutoff', target: cutoff };
    expect(faults({ ends: [{ ...end, direction: 'against' }] })).toEqual([]);
    expect(faults({ ends: [end, { ...end, to: 'tone.none', direction: 'up' }] })).toEqual([
      'ends[1].direction',
      'ends[1].to',
    ]);
    expect(faults({ ends: 7 })).toEqual(['ends']);
    expect(faults({ ends: [end], from: 'a.none' })).toEqual(['from']);
    expect(faults({ ends: [end], patch: {} })).toEqual(['patch.format']);
  });

  it('reads requests, and names what is wrong with them', () => {
    const faults = (x: unknown) => {
      const read = readPlanRequest(x);
      return read.ok ? [] : read.errors.map((e) => e.path);
    };
    const good = { from: 'lfo', to: 'filter.cutoff', target: cutoff };
    expect(faults(good)).toEqual([]);
    expect(faults({ ...good, from: 'vca' })).toEqual(['from']);
    expect(faults({ ...good, to: 'filter.nothing' })).toEqual(['to']);
    expect(faults({ ...good, stages: 5 })).toEqual(['stages']);
    expect(faults({ ...good, target: { ...cutoff, at: 'x.y' } })).toContain('target.at');
    expect(
      faults({ ...good, patch: { format: 'fenvo.patch', version: 1, modules: [{ id: 'a', kind: 'no' }] } }),
    ).toEqual(['patch.modules[0].kind']);
    expect(faults(7)).not.toEqual([]);
  });
});

describe('a rack is booked once', () => {
  it('a channel of two modes plays one of them', () => {
    const rack = rackOf({
      multi: { a: { modes: [{ kind: 'offset', ranges: { volts: [-5, 5] } }, { kind: 'attenuverter' }] } },
    });
    const request = {
      from: { kind: 'lfo', params: { lowVolts: -1, highVolts: 7 } },
      to: 'parameter.cv',
      target: { quantity: 'volts', low: -2, high: 2 },
    } as const;
    for (const p of planChain(request, rack).proposals) {
      const used = p.stages.map((s) => s.rack);
      expect(new Set(used).size).toBe(used.length);
    }
  });

  it('a random rack of channels with modes never plays a channel twice', () => {
    const mode = fc.constantFrom('offset', 'attenuverter', 'attenuator', 'mixer', 'inverter');
    const channel = fc.uniqueArray(mode, { minLength: 1, maxLength: 3 });
    fc.assert(
      fc.property(fc.array(channel, { minLength: 1, maxLength: 4 }), (channels) => {
        const rack = rackOf({
          m: Object.fromEntries(channels.map((kinds, i) => [`c${i}`, { modes: kinds.map((kind) => ({ kind })) }])),
        });
        const plan = planChain({ from: 'lfo', to: 'filter.cutoff', target: cutoff, stages: 2 }, rack);
        for (const p of plan.proposals) {
          const used = p.stages.map((s) => s.rack);
          expect(new Set(used).size).toBe(used.length);
        }
      }),
      { numRuns: 12 },
    );
  });

  it('jumpers of all stages are set where it takes all of them', () => {
    const att = { kind: 'attenuverter', choices: { maxAmount: [1, 2] } };
    const rack = rackOf({ att: { a: att, b: att, c: att } });
    const patch = patchOf(
      { a: ['lfo', { lowVolts: -1, highVolts: 1 }], x: ['parameter', { fullVolts: 12, knob: 0 }] },
      [],
    );
    const [best] = planChain(
      { patch, from: 'a.out', to: 'x.cv', target: { quantity: 'volts', low: -6, high: 6 } },
      rack,
    ).proposals;
    expect(best).toMatchObject({ met: true });
    const product = best!.stages.reduce((k, s) => k * Number(s.params.amount ?? 0), 1);
    expect(Math.abs(product)).toBeCloseTo(6, 6);
  });

  it('says which of the patch’s own modules it has no channel for', () => {
    const rack = rackOf({ att: { a: 'offset' } });
    const plan = planChain({ from: 'lfo', to: 'filter.cutoff', target: cutoff }, rack);
    expect(plan.short.map((s) => s.kind)).toEqual(['lfo', 'filter']);
    expect(planChain({ from: 'lfo', to: 'filter.cutoff', target: cutoff }).short).toEqual([]);
  });

  it('puts chains that bring no warning before shorter ones that do', () => {
    const target: Wish = { quantity: 'volts', low: 2, high: 2.1 };
    // With a tone at its input: of an amplifier without one nothing is heard, and nothing leaks.
    const modules = { beat: ['clock'], env: ['envelope'], tone: ['oscillator'], amp: ['vca'] } as const;
    const patch = patchOf(modules, ['beat.out > env.gate', 'tone.saw > amp.in']);
    const { proposals } = planChain({ patch, from: 'env.out', to: 'amp.cv', target });
    expect(proposals[0]).toMatchObject({ met: true, warns: [] });
    expect(proposals[0]!.stages.length).toBeGreaterThan(0);
    const straight = proposals.find((p) => p.stages.length === 0)!;
    expect(straight).toMatchObject({ met: true, warns: ['vca-leak'] });
  });
});
