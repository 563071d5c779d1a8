import { useEffect, useRef, useState } from 'react';
import type { Patch } from '@/core';
import type { FigureAt, FigureValue } from '@/core/practice';
import { practiceWorker } from '../practiceWorker';

interface Wanted {
  readonly patch: Patch;
  readonly at: string;
  readonly figure: FigureAt['figure'];
}

interface Known {
  readonly of: Wanted;
  readonly value: FigureValue | null;
}

/**
 * What a figure of a patch comes to, simulated whole beside the page. While the patch moves on, the last one known; of
 * all that is asked meanwhile only the latest is worked out.
 *
 * @returns null until anything is known; `current` is false while a newer one is on its way.
 */
export function useFigure(
  patch: Patch,
  { at, figure }: FigureAt,
): { readonly value: FigureValue | null; readonly current: boolean } | null {
  const [known, setKnown] = useState<Known | null>(null);
  const wanted = useRef<Wanted | null>(null);
  const busy = useRef(false);
  useEffect(() => {
    wanted.current = { patch, at, figure };
    if (busy.current) return;
    busy.current = true;
    const work = async (): Promise<void> => {
      for (let next = wanted.current; next; next = wanted.current === next ? null : wanted.current) {
        const { patch: of, ...place } = next;
        setKnown({ of: next, value: await practiceWorker().figure(of, place) });
      }
    };
    // A figure that cannot be worked out is not shown; the strip tells why.
    void work()
      .catch(() => undefined)
      .finally(() => {
        busy.current = false;
      });
  }, [patch, at, figure]);
  // Of another place nothing is known yet.
  if (!known || known.of.at !== at || known.of.figure !== figure) return null;
  return { value: known.value, current: known.of.patch === patch };
}
