import { describe, expect, it } from 'vitest';
import { faultOf, waysFor, wishOf } from './goals';

describe('a goal in words', () => {
  it('is read as a target, each way by its own figures', () => {
    expect(wishOf('range', 'frequency', [200, 3200])).toEqual({
      basis: 'arrives',
      quantity: 'frequency',
      low: 200,
      high: 3200,
    });
    expect(wishOf('span', 'frequency', [4, 400])).toMatchObject({ want: 'span', span: 4, centre: 400 });
    expect(wishOf('mean', 'gain', [-6, null])).toEqual({ want: 'mean', quantity: 'gain', value: -6 });
    expect(wishOf('fall', 'gain', [60, 0.5])).toEqual({ want: 'fall', db: 60, seconds: 0.5 });
    expect(wishOf('within', 'gain', [-20, 0])).toMatchObject({ want: 'within', low: -20, high: 0 });
  });
  it('says what is missing, and is nothing until then', () => {
    expect(faultOf('range', [3, 1], 'Hz')).toContain('lower');
    expect(faultOf('range', [3, null], 'Hz')).toContain('in Hz');
    expect(faultOf('mean', [3, null], 'Hz')).toBeNull();
    expect(faultOf('span', [0, 400], 'Hz')).toContain('width');
    expect(faultOf('fall', [60, 0], '')).toContain('greater than 0');
    expect(wishOf('range', 'frequency', [null, 3])).toBeNull();
  });
  it('falls only where something can', () => {
    expect(waysFor('gain', 'dB').map(([w]) => w)).toContain('fall');
    expect(waysFor('frequency', 'Hz').map(([w]) => w)).not.toContain('fall');
  });
});
