import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { outgrown } from './history';
import type { Version } from './history';

const NOW = new Date('2026-05-01T12:00:00Z');
const HOUR = 3_600_000;
const version = (revision: number, hoursAgo: number, keptFor: string | null = null): Version => ({
  revision,
  savedAt: new Date(NOW.getTime() - hoursAgo * HOUR),
  keptFor,
});
const kept = (versions: readonly Version[]): number[] => {
  const gone = new Set(outgrown(versions, NOW));
  return versions.map((v) => v.revision).filter((r) => !gone.has(r));
};

describe('the history of a patch', () => {
  it('keeps all of the last day', () => {
    const day = Array.from({ length: 500 }, (_, i) => version(i + 1, (23.9 * (500 - i)) / 500));
    expect(kept(day)).toHaveLength(500);
  });
  it('keeps what a clock that was set back dates in the future', () => {
    const later = Array.from({ length: 50 }, (_, i) => version(i + 1, -9000 + i / 100));
    expect(kept([...later, version(60, 1)])).toHaveLength(51);
  });
  it('then one an hour, then one a day, the last of each', () => {
    const twoDaysAgo = [version(2, 48.9), version(3, 48.6), version(4, 48.1)];
    expect(kept([version(1, 9000), ...twoDaysAgo, version(9, 1)])).toEqual([1, 4, 9]);
    const tenDaysAgo = [version(2, 245), version(3, 243), version(4, 241)];
    expect(kept([version(1, 9000), ...tenDaysAgo, version(9, 1)])).toEqual([1, 4, 9]);
  });
  it('and for ever the first, the present one, and what was named, restored or started from', () => {
    const old = [version(1, 9000), version(2, 5000, 'named'), version(3, 4999.9, 'restored'), version(4, 4999.8)];
    expect(kept(old)).toEqual([1, 2, 3, 4]);
    expect(kept([...old, version(5, 4999.7)])).toEqual([1, 2, 3, 5]);
  });
  it('letting go twice lets go of no more', () => {
    const ages = fc.array(fc.double({ min: 0, max: 3000, noNaN: true }), { maxLength: 200 });
    fc.assert(
      fc.property(ages, (list) => {
        const versions = [...list].sort((a, b) => b - a).map((age, i) => version(i + 1, age));
        const gone = new Set(outgrown(versions, NOW));
        const rest = versions.filter((v) => !gone.has(v.revision));
        expect(outgrown(rest, NOW)).toEqual([]);
      }),
    );
  });
});
