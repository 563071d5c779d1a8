import { WaveFile } from 'wavefile';
import { describe, expect, it } from 'vitest';
import { buildGraph } from '../graph/graph';
import { simulateGraph } from '../simulate/simulate';
import { patchOf } from '../testing/patch';
import { usualEars } from './ears';
import { graphAt } from './player';
import { loudnessOf, render, secondsHeard } from './render';

const patch = patchOf({ tone: ['oscillator', { baseHz: 440 }], half: ['attenuator', { amount: 0.5 }] }, [
  'tone.sine > half.in',
]);
const ears = { left: 'half.out', right: 'half.out', gain: 1 };

function fileOf(parts: readonly Uint8Array[]): WaveFile {
  const bytes = new Uint8Array(parts.reduce((n, p) => n + p.length, 0));
  let at = 0;
  for (const part of parts) {
    bytes.set(part, at);
    at += part.length;
  }
  return new WaveFile(bytes);
}

/** A sine's amplitude and what is left of the rest, of a trace of whole cycles. */
function sine(trace: Float64Array, hertz: number, rate: number): { amplitude: number; rest: number } {
  let [re, im] = [0, 0];
  trace.forEach((v, k) => {
    re += v * Math.cos((2 * Math.PI * hertz * k) / rate);
    im += v * Math.sin((2 * Math.PI * hertz * k) / rate);
  });
  const amplitude = (2 * Math.hypot(re, im)) / trace.length;
  const power = trace.reduce((s, v) => s + v * v, 0) / trace.length;
  return { amplitude, rest: Math.sqrt(Math.max(0, power - amplitude ** 2 / 2)) };
}

describe('a rendering', () => {
  it.each(['16', '24', '32f'] as const)('is a WAV of %s bit whose sine is a quarter of full scale', (bits) => {
    const { parts, over, peak } = render(patch, { of: ears, seconds: 2.5, sampleRate: 44_100, bits });
    const file = fileOf(parts);
    expect(file.fmt).toMatchObject({ numChannels: 2, sampleRate: 44_100 });
    file.toBitDepth('64');
    const [left, right] = file.getSamples(false, Float64Array) as unknown as [Float64Array, Float64Array];
    expect(left).toHaveLength(Math.round(2.5 * 44_100));
    const { amplitude, rest } = sine(left.slice(-44_100), 440, 44_100);
    // Ten hertz of blocking takes a little.
    expect(amplitude).toBeCloseTo(0.25, 3);
    expect(rest).toBeLessThan(bits === '16' ? 3e-5 : 1e-6);
    expect(sine(right.slice(-44_100), 440, 44_100).amplitude).toBeCloseTo(amplitude, 5);
    expect(over).toBe(0);
    // Where it begins, the blocking swings a little.
    expect(peak).toBeGreaterThan(0.249);
    expect(peak).toBeLessThan(0.26);
  });

  it('of a struck amplifier rises and falls as its contour, and of a saw has overtones as its series', () => {
    const struck = patchOf(
      {
        beat: ['clock', { bpm: 20 }],
        hit: ['envelope', { mode: 'ad', attack: 0.5, decay: 1, attackCurve: 0, decayCurve: 0, peakVolts: 5 }],
        tone: ['oscillator', { baseHz: 480 }],
        amp: ['vca', {}],
      },
      ['beat.out > hit.gate', 'tone.sine > amp.in', 'hit.out > amp.cv'],
      { loading: 'ideal' },
    );
    const of = { left: 'amp.out', right: 'tone.saw', gain: 1 };
    const { parts } = render(struck, { of, seconds: 2, sampleRate: 48_000, bits: '32f' });
    const [hit, saw] = fileOf(parts).getSamples(false, Float64Array) as unknown as [Float64Array, Float64Array];
    // Up in half a second, down in one: half of full scale at the top. Ten cycles tell the level about a moment.
    const levelAt = (t: number) => sine(hit.slice(48_000 * t - 500, 48_000 * t + 500), 480, 48_000).amplitude;
    for (const [t, level] of [
      [0.125, 0.125],
      [0.25, 0.25],
      [0.75, 0.375],
      [1, 0.25],
      [1.25, 0.125],
    ] as const)
      expect(levelAt(t) / level).toBeCloseTo(1, 2);
    expect(Math.max(...hit.slice(48_000 * 1.7).map(Math.abs))).toBeLessThan(1e-3);
    // A saw of 5 V: 2·5/(πn) V of each overtone.
    for (let n = 1; n <= 6; n++)
      expect((sine(saw.slice(-48_000), 480 * n, 48_000).amplitude * Math.PI * n) / (2 * 5 * 0.1)).toBeCloseTo(1, 1);
  });

  it('of probes is the simulation itself, a tenth a volt', () => {
    const { parts } = render(patch, { of: ['tone.sine', 'half.out'], seconds: 0.5, sampleRate: 48_000, bits: '32f' });
    const file = fileOf(parts);
    const [tone, half] = file.getSamples(false, Float64Array) as unknown as [Float64Array, Float64Array];
    const graph = { ...graphAt({ ...patch, settings: { ...patch.settings, duration: 0.5 } }, 48_000) };
    const { traces } = simulateGraph(graph, { traces: ['tone.sine', 'half.out'] });
    const apart = (file: Float64Array, of: string): number =>
      file.reduce((m, v, k) => Math.max(m, Math.abs(10 * v - traces.get(of)![k]!)), 0);
    expect(apart(tone, 'tone.sine')).toBeLessThan(1e-6);
    expect(apart(half, 'half.out')).toBeLessThan(1e-6);
  });

  it('counts what is cut flat, says how far it is, and refuses what cannot be', () => {
    const loud = patchOf({ tone: ['oscillator', { lowVolts: -12, highVolts: 12 }] });
    const shares: number[] = [];
    const of = ['tone.sine'];
    const { over } = render(loud, { of, seconds: 2, sampleRate: 48_000, bits: '16', progress: (s) => shares.push(s) });
    expect(over).toBeGreaterThan(1000);
    expect(shares.at(-1)).toBe(1);
    expect(shares).toEqual([...shares].sort((a, b) => a - b));
    const options = { of, seconds: 1, sampleRate: 48_000, bits: '16' } as const;
    expect(() => render(loud, { ...options, seconds: 1801 })).toThrow('at most 1800 s');
    expect(() => render(loud, { ...options, sampleRate: 1234 })).toThrow('192000');
    expect(() => render(loud, { ...options, of: ['tone.nothing'] })).toThrow('no socket tone.nothing');
  });

  it('tells how loud a patch is: half the voltage, six decibels less', () => {
    const whole = usualEars(buildGraph(patchOf({ tone: ['oscillator'] })))!;
    const loud = loudnessOf(patchOf({ tone: ['oscillator'] }), { ...whole, left: 'tone.sine', right: 'tone.sine' }, 2);
    const soft = loudnessOf(patch, ears, 2);
    expect(20 * Math.log10(loud / soft)).toBeCloseTo(20 * Math.log10(2), 1);
    expect(loud).toBeCloseTo(0.5 / Math.SQRT2, 2);
  });
});

describe('how long a patch is heard to tell how loud it is', () => {
  it('is whole cycles of what moves slower than sound, at least four seconds and at most a minute', () => {
    const swelling = (rateHz: number) =>
      patchOf({ o: ['oscillator'], l: ['lfo', { rateHz, lowVolts: 0, highVolts: 5 }], a: ['vca'], x: ['lineOut'] }, [
        'o.sine > a.in',
        'l.out > a.cv',
        'a.out > x.left',
      ]);
    const ears = { left: 'a.out', right: 'a.out' };
    expect(secondsHeard(swelling(0.05), ears)).toBeCloseTo(20, 9);
    expect(secondsHeard(swelling(0.3), ears)).toBeCloseTo(20 / 3, 9);
    expect(secondsHeard(swelling(2), ears)).toBeCloseTo(4, 9);
    expect(secondsHeard(swelling(0.001), ears)).toBe(4);
    expect(secondsHeard(patchOf({ o: ['oscillator'] }, []), { left: 'o.sine', right: 'o.sine' })).toBe(4);
  });
});
