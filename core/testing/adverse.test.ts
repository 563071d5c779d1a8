import { describe, expect, it } from 'vitest';
import { LIMITS } from '../document/types';
import { parsePatch } from '../document/parse';
import { adverse } from './adverse';

describe('a file that is wrong throughout', () => {
  it.each(Object.entries(adverse))('%s: is refused with what a person can mend, and no more', (_, make) => {
    const text = JSON.stringify(make());
    expect(text.length).toBeLessThan(1.01 * LIMITS.bytes);
    const result = parsePatch(JSON.parse(text));
    const errors = result.ok ? [] : result.errors;
    expect(errors.length).toBeGreaterThan(1);
    expect(errors.length).toBeLessThanOrEqual(1001);
    // Each fault has its place, and the last says that there are more.
    expect(errors.slice(0, 1000).every((e) => e.path !== '')).toBe(true);
    expect(errors.length === 1001).toBe(errors.at(-1)?.path === '');
    expect(JSON.stringify(errors).length).toBeLessThan(200_000);
  });
});
