import { readdirSync, readFileSync } from 'node:fs';
import path from 'node:path';
import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { buildGraph, endsOf, parsePatch, showNumber, simulateGraph } from '@/core';
import { predictedAt } from '@/ui/session/predictedAt';
import type { PictureData } from '@/wire/core';
import { spread } from '../scope/PlotMarks';
import { frameViews } from './frames';
import type { FrameView } from './frames';
import { layoutOf, RULER, UNIT_RULER, voltsAt } from './geometry';
import { boundReach, clearBaseline, figureWidth, insertTop, roomyTicks, traceReach } from './labels';
import type { Reach } from './labels';
import { placed, said } from './MomentMarks';

const COLUMNS = 160;
const DEMO = 'demo/patches';

/** A trace as its columns, from least to greatest. */
function columnsOf(trace: ArrayLike<number>): PictureData {
  const [min, max] = [new Float32Array(COLUMNS).fill(Infinity), new Float32Array(COLUMNS).fill(-Infinity)];
  for (let k = 0; k < trace.length; k++) {
    const c = Math.floor((k * COLUMNS) / trace.length);
    min[c] = Math.min(min[c] as number, trace[k] as number);
    max[c] = Math.max(max[c] as number, trace[k] as number);
  }
  return { min, max } as PictureData;
}

describe('a base line clear of what is in the way', () => {
  const reach = fc.tuple(fc.double({ min: 0, max: 300, noNaN: true }), fc.double({ min: 0, max: 60, noNaN: true }));
  it('lies on nothing, inside, and is the nearest of all whole pixels that do', () => {
    fc.assert(
      fc.property(fc.array(reach, { maxLength: 5 }), fc.double({ min: 0, max: 300, noNaN: true }), (list, wanted) => {
        const blocked = list.map(([top, tall]) => [top, top + tall] as const);
        const clear = (y: number): boolean =>
          y >= 12 && y <= 296 && blocked.every(([a, b]) => y + 4 <= a + 1e-9 || y - 12 >= b - 1e-9);
        const found = clearBaseline(wanted, blocked, [0, 300]);
        const pixels = Array.from({ length: 301 }, (_, y) => y).filter(clear);
        if (found === null) return pixels.length === 0;
        const nearest = Math.min(...pixels.map((y) => Math.abs(y - wanted)));
        return clear(found) && Math.abs(found - wanted) <= nearest + 1e-9;
      }),
      { numRuns: 400 },
    );
  });
  it('there is none where all is covered, or there is no height', () => {
    expect(clearBaseline(50, [[0, 100]], [0, 100])).toBeNull();
    expect(clearBaseline(5, [], [0, 10])).toBeNull();
  });
});

describe('the button that puts a stage between', () => {
  const bounds = fc.tuple(fc.double({ min: -14, max: 14, noNaN: true }), fc.double({ min: 0, max: 20, noNaN: true }));
  it('stands at the foot, and where frames are close, on no number of the next', () => {
    fc.assert(
      fc.property(bounds, fc.integer({ min: 180, max: 700 }), fc.boolean(), ([low, span], height, close) => {
        const bound = [low, low + span] as const;
        const layout = layoutOf([false, close, false], { width: 800, height }, 0, [-15, 35]);
        const at = insertTop(bound, layout, false);
        const foot = layout.bottom - 30;
        if (!close) return at === foot;
        const lies = boundReach(bound, layout.y).some(([a, b]) => at + 24 > a + 1e-6 && at < b - 1e-6);
        const onFoot = boundReach(bound, layout.y).some(([a, b]) => foot + 24 > a && foot < b);
        return !lies && at >= layout.top && at + 24 < layout.bottom && (onFoot || at === foot);
      }),
    );
  });
  it('before a folded frame, which has no numbers, it stays at the foot', () => {
    const layout = layoutOf([false, true, false], { width: 800, height: 300 }, 0, [-15, 15]);
    expect(insertTop([-15, 15], layout, true)).toBe(layout.bottom - 30);
    expect(insertTop([-15, 15], layout, false)).not.toBe(layout.bottom - 30);
  });
});

describe('the figures of a ruler', () => {
  it('stand clear of each other, as many as there is room for, at round volts', () => {
    const span = fc.tuple(fc.double({ min: -20, max: 10, noNaN: true }), fc.double({ min: 0.5, max: 40, noNaN: true }));
    fc.assert(
      fc.property(span, fc.integer({ min: 160, max: 900 }), ([low, wide], height) => {
        const { y } = layoutOf([false], { width: 800, height }, 0, [low, low + wide]);
        const ticks = roomyTicks(y, 20);
        const apart = ticks.slice(1).map((v, i) => y(ticks[i]!) - y(v));
        expect(Math.min(...apart, Infinity)).toBeGreaterThanOrEqual(15 - 1e-6);
        // More of them would stand on each other.
        for (let n = ticks.length + 1; n <= 20; n++) {
          const [a, b] = y.ticks(n);
          if (y.ticks(n).length > ticks.length) expect(y(a!) - y(b!)).toBeLessThan(15 + 1e-6);
        }
      }),
    );
  });
});

describe('the figures of several traces at one moment', () => {
  it('never lie over one another, and stay inside', () => {
    fc.assert(
      fc.property(fc.array(fc.double({ min: -50, max: 250, noNaN: true }), { maxLength: 6 }), (heights) => {
        const lines = spread(heights, 200).toSorted((a, b) => a - b);
        return lines.every((y, i) => y <= 179 + 1e-9 && (i === 0 || y - (lines[i - 1] as number) >= 15 - 1e-9));
      }),
    );
  });
  it('stand at their own heights where there is room', () => {
    expect(spread([40, 120, 80], 200)).toEqual([35, 115, 75]);
    expect(spread([100, 100], 200)).toEqual([95, 110]);
  });
});

/** What the strips of a patch show: a view a frame, with its trace. */
function stripsOf(name: string): FrameView[][] {
  const read = parsePatch(JSON.parse(readFileSync(path.join(DEMO, name), 'utf8')));
  if (!read.ok) throw new Error(name);
  const graph = buildGraph({ ...read.value, settings: { ...read.value.settings, duration: 2 } });
  return endsOf(graph).flatMap((end) => {
    const predicted = predictedAt(graph, end);
    const { strip, bounds } = predicted;
    if (!strip) return [];
    const sockets = strip.frames.flatMap((f) => f.output ?? f.input?.socket ?? []);
    const { traces } = simulateGraph({ ...graph, sampleRate: 4000 }, { traces: sockets, only: sockets, bounds });
    const pictures = new Map(sockets.flatMap((s) => (traces.has(s) ? [[s, columnsOf(traces.get(s)!)] as const] : [])));
    return [frameViews(strip, predicted).map((v, i) => ({ ...v, picture: pictures.get(sockets[i] ?? '') ?? null }))];
  });
}

const SHARES = Array.from({ length: 15 }, (_, k) => (k + 1) / 16);

describe('the figure at the moment pointed at', () => {
  it.each(readdirSync(DEMO).filter((name) => name.endsWith('.json')))(
    'lies on no trace and no number where a frame has room, and inside it: %s',
    (name) => {
      const strips = stripsOf(name);
      // Frames at their narrowest, at a common width, and wide.
      for (const [wide, least] of [
        [92, 0.4],
        [125, 0.5],
        [230, 0.6],
      ] as const) {
        let [all, clear] = [0, 0];
        for (const views of strips) {
          const folded = views.map(() => false);
          const beside = RULER + UNIT_RULER + 30 * (views.length - 1);
          const layout = layoutOf(folded, { width: wide * views.length + beside, height: 400 }, 0, [-12, 12]);
          views.forEach((view, i) => {
            const [left, width] = [layout.x[i]!, layout.w[i]!];
            expect(width).toBeCloseTo(wide, 6);
            for (const share of SHARES) {
              const volts = view.picture && voltsAt(view.picture, share);
              if (!volts || !view.picture) continue;
              all++;
              const text = said(volts);
              const long = figureWidth(text);
              const place = placed(view, layout, i, share, text);
              const [from, to] = [place.x, place.x + long];
              const out = Math.max(0, long - width) / 2 + 1e-9;
              expect(from).toBeGreaterThanOrEqual(left - out);
              expect(to).toBeLessThanOrEqual(left + width + out);
              if (!place.clear) continue;
              clear++;
              const lies = (reaches: readonly Reach[]): boolean =>
                reaches.some(([a, b]) => place.y + 4 > a + 1e-6 && place.y - 12 < b - 1e-6);
              expect(lies(traceReach(view.picture, (from - left) / width, (to - left) / width, layout.y))).toBe(false);
              if (from < left + 4 + 8 * showNumber(view.arrives[0], 2, true).length)
                expect(lies(boundReach(view.arrives, layout.y))).toBe(false);
              // Nor on the handles of what is wanted, where the figure is no wider than what is left.
              if (i === views.length - 1 && long <= width - 26)
                expect(to).toBeLessThanOrEqual(left + width - 26 + 1e-9);
            }
          });
        }
        expect(all).toBeGreaterThan(0);
        // A sound fills its frame; everywhere else there is room.
        expect(clear / all).toBeGreaterThan(least);
      }
    },
  );
});
