import { beforeEach, describe, expect, it, vi } from 'vitest';
import { applyEdits, BoundsEngine, buildGraph } from '@/core';
import { patchOf } from '@/core/testing/patch';
import { meters } from '@/ui/session/meters';
import type { LiveReport } from '@/wire/live';
import { choicesFor, listenedTo, USUAL, VOICE } from './listened';
import { matchFor } from './liveState';
import type { Sound } from './sound';
import { Watching } from './watching';

const tremolo = patchOf(
  { slow: ['lfo'], tone: ['oscillator'], amp: ['vca'], out: ['lineOut', { padDb: 6 }, { label: 'Way out' }] },
  ['slow.out > amp.cv', 'tone.saw > amp.in', 'amp.out > out.left'],
);
const slow = patchOf({ slow: ['lfo'], tone: ['filter'] }, ['slow.out > tone.cutoff']);

describe('what is listened to', () => {
  it('is the way out unless somebody says otherwise, on both ears, with its pad', () => {
    const usual = listenedTo(tremolo, 'amp.cv', USUAL)!;
    expect(usual).toMatchObject({ voice: null, ears: { left: 'out.left', right: 'out.left', says: 'Way out' } });
    expect(usual.ears.gain).toBeCloseTo(10 ** (-6 / 20), 9);
    expect(usual.patch).toBe(tremolo);
  });
  it('each choice that is offered can be listened to, and is told once', () => {
    for (const [patch, end] of [
      [tremolo, 'amp.cv'],
      [slow, 'tone.cutoff'],
    ] as const) {
      const choices = choicesFor(buildGraph(patch), end);
      expect(new Set(choices.map((c) => c.key)).size).toBe(choices.length);
      for (const { key } of choices) expect(listenedTo(patch, end, key)).not.toBeNull();
    }
  });
  it('an output by itself is heard as it is', () => {
    const saw = choicesFor(buildGraph(tremolo), null).find((c) => c.says.includes('saw'))!;
    expect(listenedTo(tremolo, null, saw.key)!.ears).toMatchObject({ left: 'tone.saw', right: 'tone.saw', gain: 1 });
  });
  it('a test voice stands in where there are voltages alone, and belongs to nobody’s patch', () => {
    const heard = listenedTo(slow, 'tone.cutoff', USUAL)!;
    expect(heard.voice).not.toBeNull();
    expect(heard.patch.modules.length).toBeGreaterThan(slow.modules.length);
    expect(slow.modules).toHaveLength(2);
    // Where there is a sound already, that is heard.
    expect(listenedTo(tremolo, 'amp.cv', VOICE)).toMatchObject({ patch: tremolo, voice: null });
  });
  it('nothing is where nothing can be heard', () => {
    expect(listenedTo(patchOf({ slow: ['lfo'] }), null, VOICE)).toBeNull();
    expect(choicesFor(buildGraph(patchOf({})), null)).toEqual([]);
  });
});

describe('two that are compared', () => {
  const other = (here: number, there: number) => ({ name: 'before', patch: slow, match: { here, there } });
  it('are equally loud: the louder side comes down, and only that', () => {
    const sides = (here: number, there: number) =>
      (['here', 'there'] as const).map((side) => matchFor({ other: other(here, there), side, matched: true }));
    for (const [here, there] of [
      [0.1, 0.2],
      [0.3, 0.03],
      [0.2, 0.2],
    ] as const) {
      const [a, b] = sides(here, there) as [number, number];
      expect(a).toBeLessThanOrEqual(0);
      expect(b).toBeLessThanOrEqual(0);
      expect(here * 10 ** (a / 20)).toBeCloseTo(there * 10 ** (b / 20), 9);
      expect(Math.max(a, b)).toBeCloseTo(0, 9);
    }
  });
  it('are left alone where that is not wanted, not known yet, or one is silent', () => {
    expect(matchFor({ other: other(0.1, 0.2), side: 'there', matched: false })).toBe(0);
    expect(matchFor({ other: { ...other(1, 1), match: null }, side: 'here', matched: true })).toBe(0);
    expect(matchFor({ other: other(0, 0.2), side: 'there', matched: true })).toBe(0);
    expect(matchFor({ other: null, side: 'here', matched: true })).toBe(0);
  });
});

describe('what is watched while a patch plays', () => {
  const graph = buildGraph(tremolo);
  const sockets = graph.modules.flatMap((m) => m.outputs.map((o) => o.socket));
  const bounds = new Map<string, readonly [number, number]>();
  const told: (readonly (readonly string[])[])[] = [];
  const sound = (number: number): Sound =>
    ({ number, watch: (...all: readonly string[][]) => told.push(all) }) as unknown as Sound;
  const report = (of: (socket: string) => readonly [number, number]): LiveReport =>
    ({
      watched: Float32Array.from(sockets.flatMap((s) => [of(s)[0], ...of(s)])),
      traced: new Float32Array(0),
      number: 0,
      samples: 1,
      sampleRate: 48_000,
    }) as unknown as LiveReport;

  beforeEach(() => {
    told.length = 0;
    const run = new BoundsEngine().run(graph);
    for (const m of graph.modules)
      m.outputs.forEach((o, i) => bounds.set(o.socket, run.get(m.id)!.outputs[i] as readonly [number, number]));
  });

  it('is told to the sound once, and again to another sound or with other pins', () => {
    const watching = new Watching();
    watching.look(['amp.out']);
    watching.begin(tremolo, sound(1));
    watching.begin(tremolo, sound(1));
    expect(told).toEqual([[sockets, ['amp.out']]]);
    watching.begin(tremolo, sound(2));
    watching.look([]);
    watching.begin(tremolo, sound(2));
    expect(told).toHaveLength(3);
    expect(meters.of('amp.out')).toBeNull();
  });

  it('what is seen within its bound is no fault; each socket beyond it is named, once', () => {
    const watching = new Watching();
    watching.look([]);
    watching.begin(tremolo, sound(1));
    watching.start(tremolo);
    expect(
      watching.beyond(
        report((s) => bounds.get(s)!),
        [],
      ),
    ).toEqual([]);
    const off = report((s) => (s === 'amp.out' ? [bounds.get(s)![0], bounds.get(s)![1] + 0.01] : bounds.get(s)!));
    expect(watching.beyond(off, [])).toEqual(['amp.out']);
    expect(watching.beyond(off, ['amp.out'])).toEqual([]);
    // A report of what was watched before says nothing of this.
    expect(watching.beyond({ ...off, watched: off.watched.slice(3) }, [])).toEqual([]);
  });

  it('goes on after edits: judged by all that the knob was, once the edit is heard and known', () => {
    vi.useFakeTimers();
    try {
      const watching = new Watching();
      watching.look([]);
      watching.begin(tremolo, sound(1));
      watching.start(tremolo);
      const set = (value: number) =>
        applyEdits(tremolo, [
          { do: 'set', module: 'amp', param: 'bias', value },
          { do: 'unplug', to: 'amp.cv' },
        ]);
      const wide = (number: number): LiveReport => ({
        ...report((s) => (s === 'amp.out' ? [-50, 50] : [0, 0])),
        number,
      });
      watching.follow(set(1), 1);
      expect(watching.beyond(wide(1), [])).toEqual([]);
      vi.advanceTimersByTime(1000);
      expect(watching.beyond(wide(0), [])).toEqual([]);
      expect(watching.beyond(wide(1), [])).toEqual(['amp.out']);
      watching.follow(set(0), 2);
      vi.advanceTimersByTime(1000);
      // The first report with the edit may tell of what came before it.
      expect(watching.beyond(wide(1), [])).toEqual([]);
      expect(watching.beyond(wide(2), [])).toEqual([]);
      expect(watching.beyond(wide(2), [])).toEqual(['amp.out']);
      // As loud as it was at the knob's first place is no fault.
      const before = new BoundsEngine().run(buildGraph(set(1))).get('amp')!.outputs[0]!;
      const within = report((s) => (s === 'amp.out' ? before : [0, 0]));
      expect(watching.beyond({ ...within, number: 2 }, [])).toEqual([]);
    } finally {
      vi.useRealTimers();
    }
  });
});
