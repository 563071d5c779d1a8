import { describe, expect, it } from 'vitest';
import type { Patch, Settings } from '../document/types';
import { patchOf } from '../testing/patch';
import { predict } from './predict';

const settings = (duration: number): Partial<Settings> => ({ duration, sampleRate: 8000 });
const told = (patch: Patch) => predict(patch, { cures: false });

/** An rc lag of 99.3 % in `seconds` behind a sine of ±5 V. */
const lagged = (rateHz: number, seconds: number, duration: number): Patch =>
  patchOf(
    {
      a: ['lfo', { shape: 'sine', rateHz }],
      lag: ['slew', { law: 'rc', rise: seconds, fall: seconds }],
      x: ['filter', { cutoffHz: 1000 }],
    },
    ['a.out > lag.in', 'lag.out > x.cutoff'],
    settings(duration),
  );

describe('the range that arrives', () => {
  it('is the bound where nothing upstream remembers, a draw too', () => {
    const patch = patchOf(
      { a: ['lfo', { shape: 'stepped' }], t: ['attenuverter', { amount: 0.5 }], x: ['filter'] },
      ['a.out > t.in', 't.out > x.cutoff'],
      settings(4),
    );
    const { outputs, inputs, readings } = told(patch);
    expect(outputs['t.out']).toMatchObject({ arrives: [-2.5, 2.5], arrivesBy: 'bound' });
    expect(inputs['x.cutoff']).toMatchObject({ arrives: [-2.5, 2.5], arrivesBy: 'bound' });
    const reading = readings.find((r) => r.at === 'x.cutoff')!;
    expect(reading).toMatchObject({ arrivesBy: 'bound', arrivesLow: reading.low, arrivesHigh: reading.high });
  });

  it('is what a lag leaves of a sine, over its last whole period: A/√(1 + (ωτ)²)', () => {
    const [rateHz, seconds] = [0.5, 1];
    const { outputs, readings } = told(lagged(rateHz, seconds, 12));
    const peak = 5 / Math.hypot(1, (2 * Math.PI * rateHz * seconds) / 5);
    const { arrives, arrivesBy, bound } = outputs['lag.out']!;
    expect(bound).toEqual([-5, 5]);
    expect(arrivesBy).toBe('settled');
    expect(arrives[1]).toBeCloseTo(peak, 3);
    expect(arrives[0]).toBeCloseTo(-peak, 3);
    const { arrivesLow, arrivesHigh, low, highNote } = readings.find((r) => r.at === 'x.cutoff')!;
    expect(low).toBeCloseTo(1000 / 32, 6);
    expect(arrivesHigh! / 1000).toBeCloseTo(2 ** peak, 2);
    expect(arrivesLow! * arrivesHigh!).toBeCloseTo(1e6, -3);
    // The note told is that of the frequency told: 1000·2^4.233 Hz is 18.8 kHz, beside D10.
    expect(highNote).toMatch(/^D10/);
  });

  it('is that of all of a window that is too short for two periods, and says so', () => {
    const patch = lagged(0.1, 1, 8);
    const { outputs } = told(patch);
    expect(outputs['lag.out']).toMatchObject({ arrivesBy: 'short' });
    expect(outputs['lag.out']!.arrives).toEqual(outputs['lag.out']!.seen);
    expect(outputs['lag.out']!.settled).toBeUndefined();
    expect(told(patch).readings.find((r) => r.at === 'x.cutoff')!.lengthenTo).toBe(20);
    expect(told(lagged(0.1, 1, 20)).readings.find((r) => r.at === 'x.cutoff')).toMatchObject({ arrivesBy: 'settled' });
  });

  it('takes the second half behind a period of over a minute', () => {
    const { outputs } = told(lagged(0.01, 1, 8));
    const { arrives, arrivesBy, seen } = outputs['lag.out']!;
    expect(arrivesBy).toBe('settled');
    expect(outputs['a.out']!.settled).toBeUndefined();
    // A hundredth of a turn a second: from 4 s on it has left its start behind and still rises.
    expect(arrives[0]).toBeGreaterThan(1);
    expect(arrives[1]).toBeCloseTo(seen![1], 9);
  });

  it('is what was seen in the second half where something draws', () => {
    const patch = patchOf(
      { a: ['lfo', { shape: 'stepped', rateHz: 4 }], lag: ['slew', { law: 'rc', rise: 0.5, fall: 0.5 }] },
      ['a.out > lag.in'],
      settings(8),
    );
    expect(told(patch).outputs['lag.out']!.arrivesBy).toBe('seen');
  });

  it('counts no sound: a slow swell of a tone is taken over the swell’s period', () => {
    const patch = patchOf(
      {
        tone: ['lfo', { shape: 'sine', rateHz: 31.7 }],
        swell: ['lfo', { shape: 'sine', rateHz: 1, lowVolts: 0, highVolts: 5 }],
        amp: ['vca'],
        lag: ['slew', { law: 'rc', rise: 0.001, fall: 0.001 }],
      },
      ['tone.out > amp.in', 'swell.out > amp.cv', 'amp.out > lag.in'],
      settings(8),
    );
    const { arrives, arrivesBy } = told(patch).outputs['lag.out']!;
    expect(arrivesBy).toBe('settled');
    expect(arrives[1]).toBeGreaterThan(4.5);
  });

  it('of a reading is what feeds it, not what its own module remembers', () => {
    const { readings } = told(patchOf({ a: ['lfo'], x: ['slew'] }, ['a.out > x.riseCv'], settings(4)));
    expect(readings.find((r) => r.at === 'x.riseCv')!.arrivesBy).toBe('bound');
  });

  it('is the bound without a simulation', () => {
    const { outputs, readings } = predict(lagged(0.5, 1, 12), { simulation: false });
    expect(outputs['lag.out']).toMatchObject({ arrives: [-5, 5], arrivesBy: 'bound' });
    expect(readings[0]).toMatchObject({ arrivesBy: 'bound', arrivesLow: readings[0]!.low });
  });

  it('keeps a ducking as deep as it is at the hits', () => {
    // A contour of 0.4 s behind a follower’s lag: nobody hears the depth that the bound allows.
    const patch = patchOf(
      {
        beat: ['clock', { bpm: 120 }],
        env: ['envelope', { mode: 'ad', attack: 0.01, decay: 0.1, peakVolts: 5, attackCurve: 0, decayCurve: 0 }],
        lag: ['slew', { law: 'rc', rise: 0.2, fall: 0.2 }],
        depth: ['attenuverter', { amount: -1 }],
        tone: ['oscillator'],
        amp: ['vca', { bias: 5 }],
      },
      ['beat.out > env.gate', 'env.out > lag.in', 'lag.out > depth.in', 'depth.out > amp.cv', 'tone.saw > amp.in'],
      { duration: 4 },
    );
    const reading = told(patch).readings.find((r) => r.at === 'amp.cv')!;
    expect(reading.low).toBeNull();
    expect(reading.arrivesLow!).toBeGreaterThan(-9);
    expect(reading.arrivesLow!).toBeLessThan(-3);
    expect(reading.arrivesBy).toBe('settled');
  });
});
