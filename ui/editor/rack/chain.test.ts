import { describe, expect, it } from 'vitest';
import { patchOf } from '@/core/testing/patch';
import { withoutChain } from './chain';

describe('a patch without its chain', () => {
  it('has its source straight in its end, and keeps what others hang on', () => {
    const patch = patchOf({ slow: ['lfo'], a: ['attenuverter'], b: ['offset'], tone: ['filter'], other: ['filter'] }, [
      'slow.out > a.in',
      'a.out > b.in',
      'b.out > tone.cutoff',
      'a.out > other.cutoff',
    ]);
    const bare = withoutChain(patch, 'slow.out', 'tone.cutoff');
    expect(bare.modules.map((m) => m.id)).toEqual(['slow', 'a', 'tone', 'other']);
    expect(bare.cables).toContainEqual({ from: 'slow.out', to: 'tone.cutoff' });
    expect(bare.cables).toContainEqual({ from: 'a.out', to: 'other.cutoff' });
  });
});
