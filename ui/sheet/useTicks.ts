import { useCallback, useEffect, useRef, useState } from 'react';
import { rackApi } from '@/ui/parts/rackApi';
import { mergedTicks } from '@/wire/racks';
import type { Tick, Ticks } from '@/wire/requests';

/** How often a failed send is retried, milliseconds. */
const AGAIN = 4000;
/** Ticks so near together are sent together, milliseconds. */
const PAUSE = 300;

const keyOf = (patch: string, rack: string): string => `fenvo.ticks ${patch} ${rack}`;

function kept(key: string): Ticks {
  try {
    return JSON.parse(localStorage.getItem(key) ?? '{}') as Ticks;
  } catch {
    return {};
  }
}

function keep(key: string, ticks: Ticks): void {
  try {
    localStorage.setItem(key, JSON.stringify(ticks));
  } catch {
    // A browser that keeps nothing has the page alone.
  }
}

export interface Ticking {
  readonly ticks: Ticks;
  /** Whether all of it has reached the server. */
  readonly sent: boolean;
  mark(step: string, change: Partial<Omit<Tick, 'at'>>): void;
  /** Takes in what was ticked elsewhere; of each step the later word counts. */
  bring(ticks: Ticks): void;
}

/**
 * What is done of a sheet: kept in this browser at once, and on the server as soon as it answers. Of each step the
 * later word counts, whoever said it.
 */
export function useTicks(patch: string, rack: string): Ticking {
  const key = keyOf(patch, rack);
  const [state, setState] = useState<{ readonly key: string; readonly ticks: Ticks }>({ key: '', ticks: {} });
  const [sent, setSent] = useState(true);
  const now = useRef<Ticks>({});
  const timer = useRef<ReturnType<typeof setTimeout>>(undefined);

  const take = useCallback(
    (ticks: Ticks): void => {
      now.current = mergedTicks(now.current, ticks);
      keep(key, now.current);
      setState({ key, ticks: now.current });
    },
    [key],
  );
  const send = useCallback(
    (after: number): void => {
      clearTimeout(timer.current);
      const again = (): void => {
        const asked = now.current;
        rackApi
          .addTicks(patch, rack, asked)
          .then((all) => {
            take(all);
            if (now.current === asked || JSON.stringify(now.current) === JSON.stringify(all)) setSent(true);
          })
          .catch(() => {
            timer.current = setTimeout(again, AGAIN);
          });
      };
      timer.current = setTimeout(again, after);
    },
    [patch, rack, take],
  );
  useEffect(() => {
    now.current = kept(key);
    let live = true;
    rackApi
      .ticks(patch, rack)
      .catch(() => ({}))
      .then((ticks) => {
        if (!live) return;
        take(ticks);
        // What this browser knew and the server did not.
        if (JSON.stringify(now.current) !== JSON.stringify(ticks)) send(0);
      })
      .catch(() => undefined);
    return () => {
      live = false;
      clearTimeout(timer.current);
    };
  }, [key, patch, rack, take, send]);

  const bring = (ticks: Ticks): void => {
    take(ticks);
    setSent(false);
    send(PAUSE);
  };
  const mark = (step: string, change: Partial<Omit<Tick, 'at'>>): void => {
    const before = now.current[step] ?? { done: false, at: 0 };
    bring({ [step]: { ...before, ...change, at: Date.now() } });
  };
  return { ticks: state.key === key ? state.ticks : {}, sent, mark, bring };
}
