import { useCallback, useState } from 'react';
import type { ListedPatch } from '@/wire/patches';

/** Which patches are chosen, by id; all that are shown at once, or none. */
export function useSelection(shown: readonly ListedPatch[]) {
  const [chosen, setChosen] = useState<ReadonlySet<string>>(new Set());
  const choose = useCallback(
    (id: string): void => setChosen((now) => new Set(now.has(id) ? [...now].filter((x) => x !== id) : [...now, id])),
    [],
  );
  const chooseAll = (all: boolean): void => setChosen(new Set(all ? shown.map((p) => p.id) : []));
  return { chosen, choose, chooseAll };
}
