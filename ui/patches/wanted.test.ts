import { describe, expect, it } from 'vitest';
import { askedOf, everything, isNarrowed } from './wanted';

describe('what is looked for', () => {
  it('is all patches until something is said', () => {
    expect(isNarrowed(everything)).toBe(false);
    expect(isNarrowed({ ...everything, words: '  ', by: 'name' })).toBe(false);
    for (const more of [{ words: 'fog' }, { tags: ['calm'] }, { uses: 'slew' }, { only: ['played'] as const }])
      expect(isNarrowed({ ...everything, ...more } as typeof everything)).toBe(true);
  });

  it('is asked with the beginning of the month where one is, and no longer than the server takes', () => {
    const asked = askedOf({ ...everything, words: 'x'.repeat(300) }, 'pier', new Date(2026, 11, 31, 23, 59));
    expect(new Date(asked.since).getTime()).toBe(new Date(2026, 11, 1).getTime());
    expect(asked.words).toHaveLength(200);
  });
});
