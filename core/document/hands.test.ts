import { describe, expect, it } from 'vitest';
import { BoundsEngine } from '../bounds/bounds';
import { applyEdits } from '../edit/edit';
import { differencesOf, differenceEdits } from '../edit/differences';
import { buildGraph } from '../graph/graph';
import { LiveEngine } from '../live/engine';
import { simulateGraph } from '../simulate/simulate';
import { predict } from '../solve/cured';
import { patchOf } from '../testing/patch';
import { parsePatch } from './parse';
import { printPatch } from './print';
import type { Hand } from './types';

const sweep: Hand = {
  at: 'trim.amount',
  points: [
    { t: 0, value: 0 },
    { t: 1, value: 0.5 },
  ],
  interpolation: 'linear',
  loop: false,
};
const chain = (hands: readonly object[]) =>
  patchOf(
    { slow: ['lfo', { rateHz: 5 }], trim: ['offset', { amount: 1, volts: 1 }], lag: ['slew'] },
    ['slow.out > trim.in', 'trim.out > lag.in'],
    { duration: 2 },
    { hands },
  );

describe('hands in a document', () => {
  it('are read, printed, and left out where there are none', () => {
    const patch = chain([{ at: 'trim.amount', points: sweep.points }]);
    expect(patch.hands).toEqual([sweep]);
    expect(parsePatch(printPatch(patch))).toEqual({ ok: true, value: patch });
    expect(printPatch(chain([]))).not.toHaveProperty('hands');
  });

  it.each([
    ['a knob that is not there', { ...sweep, at: 'trim.nothing' }, 'hands[0].at'],
    ['what a builder sets', { ...sweep, at: 'trim.maxAmount' }, 'hands[0].at'],
    ['a value beyond the knob', { ...sweep, points: [{ t: 0, value: 9 }] }, 'hands[0].points[0].value'],
    [
      'a time before the last',
      {
        ...sweep,
        points: [
          { t: 1, value: 0 },
          { t: 1, value: 0 },
        ],
      },
      'hands[0].points[1].t',
    ],
    ['no points', { ...sweep, points: [] }, 'hands[0].points'],
    ['another way', { ...sweep, interpolation: 'cubic' }, 'hands[0].interpolation'],
    ['a key that nobody knows', { ...sweep, speed: 2 }, 'hands[0].speed'],
  ])('are refused for %s', (_what, hand, place) => {
    expect(() => chain([hand])).toThrow(place);
  });

  it('are refused twice on one knob', () => {
    expect(() => chain([sweep, sweep])).toThrow('hands[1].at');
  });

  it('go with their stage, and stay within what the knob can be set to', () => {
    const patch = chain([sweep]);
    expect(applyEdits(patch, [{ do: 'remove', id: 'trim' }]).hands).toEqual([]);
    const wide = applyEdits(chain([]), [
      { do: 'set', module: 'trim', param: 'maxAmount', value: 4 },
      { do: 'hand', at: 'trim.amount', hand: { ...sweep, points: [{ t: 0, value: 3 }] } },
    ]);
    const held = applyEdits(wide, [{ do: 'set', module: 'trim', param: 'maxAmount', value: 1 }]);
    expect(held.hands[0]!.points).toEqual([{ t: 0, value: 1 }]);
  });

  it('are a difference of their own, and part of a variant', () => {
    const [plain, moved] = [chain([]), chain([sweep])];
    const [difference] = differencesOf(plain, moved);
    expect(difference).toMatchObject({
      what: expect.stringMatching(/^Automation of .* gain$/) as string,
      here: 'nothing',
    });
    expect(applyEdits(plain, differenceEdits(difference!)).hands).toEqual([sweep]);
    const kept = applyEdits(moved, [
      { do: 'variant', name: 'moved', state: moved },
      { do: 'hand', at: 'trim.amount', hand: null },
      { do: 'variant', name: 'still', state: plain },
    ]);
    const again = parsePatch(printPatch(kept));
    expect(again.ok && again.value.variants.map((v) => v.hands.length)).toEqual([1, 0]);
  });
});

describe('a hand on a knob', () => {
  it('moves a linear amount exactly, sample by sample', () => {
    const graph = buildGraph(chain([sweep]));
    const { traces, sampleRate } = simulateGraph(graph, { traces: ['slow.out', 'trim.out'] });
    const [slow, trim] = [traces.get('slow.out')!, traces.get('trim.out')!];
    const apart = trim.reduce((most, v, k) => {
      const amount = Math.min(0.5, (0.5 * k) / sampleRate);
      return Math.max(most, Math.abs(v - (amount * slow[k]! + 1)));
    }, 0);
    expect(apart).toBeLessThan(1e-12);
  });

  it('bounds what it passes with one symbol for all that it reaches', () => {
    const patch = patchOf(
      {
        level: ['constant', { volts: 2 }],
        turn: ['attenuverter', { amount: 1 }],
        sum: ['mixer', { inputs: 2, bipolar: true, gain2: -1 }],
      },
      ['level.out > turn.in', 'turn.out > sum.in1', 'turn.out > sum.in2'],
      {},
      {
        hands: [
          {
            at: 'turn.amount',
            points: [
              { t: 0, value: -1 },
              { t: 1, value: 0.5 },
            ],
          },
        ],
      },
    );
    const bounds = new BoundsEngine().run(buildGraph(patch));
    expect(bounds.get('turn')!.outputs[0]).toEqual([-2, 1]);
    // The same voltage on both sides of a difference: whatever the hand does, it is nothing.
    expect(bounds.get('sum')!.outputs[0]).toEqual([0, 0]);
  });

  it('reads a destination at all that its own knob passes', () => {
    const patch = patchOf(
      { slow: ['lfo', { lowVolts: -1, highVolts: 1 }], tone: ['filter', { cutoffHz: 400 }] },
      ['slow.out > tone.cutoff'],
      { duration: 4 },
      {
        hands: [
          {
            at: 'tone.cutoffHz',
            points: [
              { t: 0, value: 200 },
              { t: 3, value: 800 },
            ],
          },
        ],
      },
    );
    const [reading] = predict(patch).readings;
    expect(reading).toMatchObject({ at: 'tone.cutoff', low: 100, high: 1600 });
    // The slow triangle is down first after 0.75 s, where the hand is at 350 Hz.
    expect(reading!.seenLow).toBeCloseTo(175, 0);
    expect(reading!.seenHigh).toBeCloseTo(1600, 0);
  });

  it('is played live as it is simulated, in blocks of any size', () => {
    const patch = chain([
      sweep,
      {
        at: 'lag.rise',
        points: [
          { t: 0, value: 0.01 },
          { t: 1.5, value: 0.4 },
        ],
        loop: true,
      },
    ]);
    const graph = buildGraph(patch);
    const { traces, samples } = simulateGraph(graph, { traces: ['lag.out'] });
    const engine = new LiveEngine(graph, { block: 37 });
    let most = 0;
    for (let k = 0; k < samples; k += 37) {
      const count = Math.min(37, samples - k);
      engine.advance(count);
      engine
        .buffer('lag.out')
        .subarray(0, count)
        .forEach((v, i) => {
          most = Math.max(most, Math.abs(v - traces.get('lag.out')![k + i]!));
        });
    }
    expect(most).toBeLessThanOrEqual(1e-9);
  });
});
