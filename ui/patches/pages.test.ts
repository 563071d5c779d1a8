import { describe, expect, it } from 'vitest';
import { PAGE, pagesOf } from './pages';

describe('pages of rows', () => {
  it('are those that the rows lie on, and none beyond the last row', () => {
    expect(pagesOf([0, 10], 1000)).toEqual([0]);
    expect(pagesOf([PAGE - 1, PAGE], 1000)).toEqual([0, 1]);
    expect(pagesOf([5 * PAGE, 6 * PAGE - 1], 10_000)).toEqual([5]);
    expect(pagesOf([-8, 900], PAGE + 1)).toEqual([0, 1]);
    expect(pagesOf([200, 220], 3)).toEqual([]);
    expect(pagesOf([0, 20], 0)).toEqual([]);
  });
});
