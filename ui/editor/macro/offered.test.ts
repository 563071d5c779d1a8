import { readdirSync, readFileSync } from 'node:fs';
import path from 'node:path';
import { describe, expect, it } from 'vitest';
import { parsePatch } from '@/core';
import { patchOf } from '@/core/testing/patch';
import { offeredBy, WAY } from './offered';

describe('the inputs that a macro could move', () => {
  it('are those that read in a unit, with what 0 and 5 V come to there', () => {
    const patch = patchOf({ tone: ['filter', { cutoffHz: 200 }, { label: 'Tone' }], sum: ['mixer'] });
    const offered = offeredBy(patch);
    expect(offered.map((o) => o.end)).toContain('tone.cutoff');
    expect(offered.some((o) => o.end.startsWith('sum.'))).toBe(false);
    const cutoff = offered.find((o) => o.end === 'tone.cutoff')!;
    expect(cutoff).toMatchObject({ unit: 'Hz', label: expect.stringContaining('Tone') });
    // Half a volt and five: what a fader does at its least and its most.
    expect(cutoff.figures[0]).toBeCloseTo(200 * 2 ** 0.5, -1);
    expect(cutoff.figures[1]).toBeCloseTo(200 * 2 ** WAY, -1);
  });
  it('a knob that takes nothing of it is not offered', () => {
    const ends = (cutoffAmount: number) => offeredBy(patchOf({ tone: ['filter', { cutoffAmount }] })).map((o) => o.end);
    expect(ends(1)).toContain('tone.cutoff');
    expect(ends(0)).not.toContain('tone.cutoff');
  });
  it.each(readdirSync('demo/patches').filter((f) => f.endsWith('.json')))('each once, all with figures: %s', (name) => {
    const read = parsePatch(JSON.parse(readFileSync(path.join('demo/patches', name), 'utf8')));
    if (!read.ok) throw new Error(name);
    const offered = offeredBy(read.value);
    expect(new Set(offered.map((o) => o.end)).size).toBe(offered.length);
    for (const { figures } of offered) expect(figures.every(Number.isFinite)).toBe(true);
  });
});
