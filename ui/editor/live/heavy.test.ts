import { describe, expect, it } from 'vitest';
import { Heaviness } from './heavy';

/** When it is said first, seconds, of reports that come every `step`; null where never. */
function saidAfter(step: number, until: number, at: (t: number) => { load: number; dropouts?: number }): number | null {
  const heaviness = new Heaviness();
  for (let i = 0; i * step <= until; i++) {
    const { load, dropouts = 0 } = at(i * step);
    if (heaviness.add(load, dropouts, i * step)) return i * step;
  }
  return null;
}

describe('a patch that is too heavy', () => {
  it('is said after two seconds, however rarely the thread gets to report', () => {
    for (const step of [1 / 60, 0.1, 0.9]) {
      const said = saidAfter(step, 10, () => ({ load: 1 }));
      expect(said).toBeGreaterThan(2);
      expect(said).toBeLessThanOrEqual(2 + step + 1e-9);
    }
  });

  it('is not hidden by a moment of rest', () => {
    // Half a second in five the machine took the time away from the sound thread.
    const said = saidAfter(1 / 60, 20, (t) => ({ load: t % 2.5 < 0.5 ? 0.6 : 1 }));
    expect(said).toBeGreaterThan(2);
    expect(said).toBeLessThan(5);
  });

  it('is told by its gaps where its load is told too low, but not by those of another program', () => {
    const gaps = (load: number) => saidAfter(1 / 60, 20, (t) => ({ load, dropouts: Math.floor(t / 0.3) }));
    expect(gaps(0.7)).toBeLessThan(10);
    expect(gaps(0.1)).toBeNull();
  });

  it('is not one that takes much for a moment, nor one whose tab was away', () => {
    expect(saidAfter(1 / 60, 20, (t) => ({ load: t % 4 < 1.5 ? 1 : 0.3 }))).toBeNull();
    expect(saidAfter(1 / 60, 20, () => ({ load: 0.84 }))).toBeNull();
    const heaviness = new Heaviness();
    heaviness.add(1, 0, 0);
    expect(heaviness.add(1, 0, 60)).toBe(false);
  });
});
