import { describe, expect, it } from 'vitest';
import { firstFault, seedsOf } from './seeds';

describe('random patches: seen within bound, all finite, printed and parsed the same', () => {
  it.each(seedsOf(3))('seeds from %i', (from) => {
    expect(firstFault(from)).toBeNull();
  });
});
