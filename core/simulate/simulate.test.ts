import fc from 'fast-check';
import { Arena } from '../native/native';
import { WaveFile } from 'wavefile';
import { describe, expect, it } from 'vitest';
import { tracesToCsv } from '../formats/csv';
import { tracesToWav } from '../formats/wav';
import { patchOf } from '../testing/patch';
import { randomPatch } from '../testing/randomPatch';
import { buildGraph } from '../graph/graph';
import { measure } from './measures';
import { simulateGraph } from './simulate';
import { Picture, Stats } from './stats';

describe('measures', () => {
  const sine = Float64Array.from({ length: 8000 }, (_, k) => 1 + 2 * Math.sin((2 * Math.PI * 5 * k) / 8000));
  it('of a sine', () => {
    const m = measure(sine, 8000);
    expect([m.min, m.max, m.peakToPeak, m.mean]).toEqual([-1, 3, 4, 1].map((v) => expect.closeTo(v, 6)));
    expect(m.rms).toBeCloseTo(Math.sqrt(1 + 2), 6);
    expect(m.duty).toBeCloseTo(0.5, 3);
    expect([m.period, m.frequency]).toEqual([expect.closeTo(0.2, 6), expect.closeTo(5, 6)]);
  });
  it('a pulse’s duty is its width; one edge has no period', () => {
    const pulse = Float64Array.from({ length: 1000 }, (_, k) => (k % 100 < 30 ? 5 : 0));
    expect(measure(pulse, 1000)).toMatchObject({ duty: 0.3, period: expect.closeTo(0.1, 9) });
    expect(measure(Float64Array.of(0, 0, 5, 5), 1000).period).toBeNull();
    expect(measure(Float64Array.of(3, 3, 3), 1000)).toMatchObject({
      min: 3,
      max: 3,
      mean: 3,
      duty: 0,
      frequency: null,
    });
  });
  it('running ones agree, however the trace is cut', () => {
    const whole = measure(sine, 8000);
    for (const size of [1, 7, 512]) {
      Arena.with(10_000, (arena) => {
        const block = arena.take(size);
        const stats = new Stats(arena, block);
        for (let from = 0; from < sine.length; from += size) {
          const part = sine.subarray(from, from + size);
          block.set(part);
          stats.add(part.length);
        }
        expect([stats.min, stats.max, stats.count]).toEqual([whole.min, whole.max, 8000]);
        expect(stats.mean).toBeCloseTo(whole.mean, 12);
        expect(stats.rms).toBeCloseTo(whole.rms, 12);
      });
    }
  });
});

describe('pictures', () => {
  it('lose no sample between their columns', () => {
    const trace = Float64Array.from({ length: 1000 }, () => 0);
    trace[333] = 4;
    trace[777] = -3;
    for (const size of [1, 64, 1000]) {
      Arena.with(10_000, (arena) => {
        const block = arena.take(size);
        const picture = new Picture(arena, block, arena.take(2), 7, 0, 1000);
        for (let k0 = 0; k0 < 1000; k0 += size) {
          const part = trace.subarray(k0, k0 + size);
          block.set(part);
          picture.add(part.length, k0);
        }
        expect([Math.max(...picture.max), Math.min(...picture.min)]).toEqual([4, -3]);
        expect(picture.max[2]).toBe(4);
        expect(picture.min[5]).toBe(-3);
      });
    }
  });
  it('of a part of the run hold that part alone, and know the reach of all', () => {
    for (const size of [1, 64, 999]) {
      Arena.with(10_000, (arena) => {
        const block = arena.take(size);
        const picture = new Picture(arena, block, arena.take(2), 10, 200, 300);
        for (let k0 = 0; k0 < 1000; k0 += size) {
          for (let i = 0; i < size; i++) block[i] = k0 + i;
          picture.add(Math.min(size, 1000 - k0), k0);
        }
        expect([...picture.min]).toEqual([200, 210, 220, 230, 240, 250, 260, 270, 280, 290]);
        expect([...picture.max]).toEqual([209, 219, 229, 239, 249, 259, 269, 279, 289, 299]);
        expect(picture.reach).toEqual([0, 999]);
      });
    }
  });
});

describe('a part of a patch', () => {
  it('run alone gives the same traces as the whole', () => {
    for (let seed = 0; seed < 120; seed++) {
      const graph = buildGraph(randomPatch(seed, { loops: seed % 3 === 0, modules: 12 }));
      const socket = graph.modules.flatMap((m) => m.outputs)[seed % 5]?.socket;
      if (!socket) continue;
      const whole = simulateGraph(graph, { traces: [socket] }).traces.get(socket);
      expect(simulateGraph(graph, { traces: [socket], only: [socket], sparing: true }).traces.get(socket)).toEqual(
        whole,
      );
    }
  });
  it('for an input runs what arrives there, not the module itself', () => {
    const graph = buildGraph(
      patchOf({ l: ['lfo'], o: ['oscillator'], f: ['filter'] }, ['l.out > f.cutoff', 'o.saw > f.in'], {
        duration: 0.1,
      }),
    );
    const { outputs, pictures } = simulateGraph(graph, { only: ['f.cutoff'], columns: 10 });
    expect([...new Set([...outputs.keys()].map((socket) => socket.split('.')[0]))]).toEqual(['l']);
    expect(pictures.get('f.cutoff')?.max.length).toBe(10);
  });
});

describe('files', () => {
  const traces = new Map([
    ['a.out', Float64Array.of(0, 1.5, -2)],
    ['b.out', Float64Array.of(10, 0, 5)],
  ]);
  it('CSV: time, then a column a probe', () => {
    expect([...tracesToCsv(traces, 1000)].join('')).toBe('time_s,a.out,b.out\n0,0,10\n0.001,1.5,0\n0.002,-2,5\n');
  });
  it('WAV: 32-bit float, volts by ten, the scale in its comment', () => {
    const file = new WaveFile(tracesToWav([...traces.values()], 1000));
    expect(file.bitDepth).toBe('32f');
    expect(
      (file.getSamples(false, Float64Array) as unknown as Float64Array[]).map((c) =>
        [...c].map((v) => Math.round(v * 1e6) / 1e5),
      ),
    ).toEqual([
      [0, 1.5, -2],
      [10, 0, 5],
    ]);
    expect(file.getTag('ICMT')).toBe('1.0 is 10 V');
  });
  it('WAV: byte by byte what the package itself makes of the samples, of any number of channels', () => {
    const volts = fc.double({ min: -1e6, max: 1e6, noNaN: true });
    const channels = fc
      .tuple(fc.integer({ min: 1, max: 5 }), fc.integer({ min: 0, max: 40 }))
      .chain(([n, length]) =>
        fc.array(fc.array(volts, { minLength: length, maxLength: length }), { minLength: n, maxLength: n }),
      );
    fc.assert(
      fc.property(channels, fc.constantFrom(8000, 48_000, 192_000), (traces, rate) => {
        const divided = traces.map((trace) => trace.map((v) => v / 10));
        const file = new WaveFile();
        file.fromScratch(traces.length, rate, '32f', traces.length === 1 ? divided[0]! : divided);
        file.setTag('ICMT', '1.0 is 10 V');
        expect(tracesToWav(traces, rate)).toEqual(file.toBuffer());
      }),
    );
  });
});

describe('the drive of a destination', () => {
  it('is all that counts there, sample by sample', () => {
    const patch = patchOf(
      { swell: ['lfo', { lowVolts: 0, highVolts: 4 }], amp: ['vca', { bias: 1, cvAmount: 0.5 }] },
      ['swell.out > amp.cv'],
      { duration: 0.1, loading: 'ideal' },
    );
    const { traces, drives } = simulateGraph(buildGraph(patch), { traces: ['swell.out'], drives: ['amp.cv'] });
    const [swell, drive] = [traces.get('swell.out')!, drives.get('amp.cv')!];
    expect(drive).toHaveLength(swell.length);
    swell.forEach((v, k) => expect(drive[k]).toBeCloseTo(1 + 0.5 * v, 9));
  });
});
