import { describe, expect, it } from 'vitest';
import { patchOf } from '../testing/patch';
import { randomPatch } from '../testing/randomPatch';
import { buildGraph } from '../graph/graph';
import { LiveEngine } from './engine';
import { heardAlone } from './heardAlone';
import { graphAt } from './player';

describe('only what is heard', () => {
  it('keeps what the ears hang on, loops and all, and leaves out the rest', () => {
    const patch = patchOf(
      {
        o: ['oscillator'],
        f: ['filter'],
        l: ['lfo'],
        m: ['mixer'],
        d: ['delay'],
        idle: ['filter'],
        behind: ['filter'],
        meter: ['follower'],
      },
      [
        'o.saw > f.in',
        'l.out > f.cutoff',
        'f.lowpass > m.in1',
        'd.out > m.in2',
        'm.out > d.in',
        'o.saw > idle.in',
        'idle.lowpass > behind.in',
        'behind.lowpass > meter.in',
      ],
    );
    const kept = heardAlone(patch, { left: 'm.out', right: 'm.out' });
    expect(kept.modules.map((m) => m.id)).toEqual(['o', 'f', 'l', 'm', 'd', 'idle']);
    expect(heardAlone(kept, { left: 'm.out', right: 'm.out' })).toBe(kept);
  });

  it('sounds the same there, over random patches', () => {
    const off: number[] = [];
    for (let seed = 0; seed < 60; seed++) {
      const patch = randomPatch(seed, { loops: seed % 3 === 0, duration: 0.05 });
      const outputs = buildGraph(patch).modules.flatMap((m) => m.outputs.map((o) => o.socket));
      const ear = outputs[seed % Math.max(1, outputs.length)];
      if (ear === undefined) continue;
      const alone = heardAlone(patch, { left: ear, right: ear });
      const [all, few] = [patch, alone].map((p) => new LiveEngine(graphAt(p, 8000))) as [LiveEngine, LiveEngine];
      for (let block = 0; block < 8; block++) {
        all.advance();
        few.advance();
        const [a, b] = [all.buffer(ear), few.buffer(ear)];
        off.push(...Array.from({ length: all.block }, (_, k) => Math.abs((a[k] as number) - (b[k] as number))));
      }
    }
    expect(off.length).toBeGreaterThan(30_000);
    expect(off.reduce((most, x) => Math.max(most, x), 0)).toBeLessThanOrEqual(1e-9);
  });
});
