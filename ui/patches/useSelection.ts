import { useCallback, useState } from 'react';

const NONE: ReadonlySet<string> = new Set();

/** Which patches are chosen, by id. */
export function useSelection() {
  const [chosen, setChosen] = useState(NONE);
  const choose = useCallback(
    (id: string): void => setChosen((now) => new Set(now.has(id) ? [...now].filter((x) => x !== id) : [...now, id])),
    [],
  );
  return { chosen, choose, chooseThese: (ids: readonly string[]): void => setChosen(new Set(ids)) };
}
