import { expect, it } from 'vitest';
import { heardFrom } from './useOtherTabs';
import type { TabWord } from './useOtherTabs';

const word = (page: string, says: TabWord['says']): TabWord => ({ id: 'p', page, says });

it('other tabs are counted by page: one that leaves takes none of the others along', () => {
  const words = [word('a', 'here'), word('b', 'me too'), word('a', 'me too'), word('a', 'gone')];
  const left = words.reduce(heardFrom, new Set<string>() as ReadonlySet<string>);
  expect([...left]).toEqual(['b']);
  expect(heardFrom(left, word('b', 'gone')).size).toBe(0);
  expect(heardFrom(left, word('c', 'gone'))).toEqual(left);
});
