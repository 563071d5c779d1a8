import { describe, expect, it } from 'vitest';
import { KeyLog } from './keyLog';

describe('what was played on the keys', () => {
  it('begins with the first key, holds chords, and ends what is still held', () => {
    let now = 7;
    const log = new KeyLog(() => now);
    const at = (t: number, act: () => void): void => {
      now = 7 + t;
      act();
    };
    at(0, () => log.press(12, 1));
    at(0.5, () => log.press(16, 0.5));
    at(1, () => log.release(12));
    now = 9;
    expect(log.length).toBe(2);
    expect(log.notes()).toEqual([
      { note: 60, from: 0, to: 1, velocity: 1 },
      { note: 64, from: 0.5, to: 2, velocity: 0.5 },
    ]);
    log.forget();
    expect(log.notes()).toEqual([]);
  });

  it('does not know a key that was never pressed', () => {
    const log = new KeyLog(() => 1);
    log.release(3);
    expect(log.notes()).toEqual([]);
  });
});
