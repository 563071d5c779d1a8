import { useCallback, useEffect, useRef, useState } from 'react';
import { tellFault } from '@/ui/parts/messages';
import { rackApi } from '@/ui/parts/rackApi';
import { mergedTicks } from '@/wire/racks';
import type { SheetTicks } from '@/wire/racks';
import type { Tick, Ticks } from '@/wire/requests';

/** How often a failed send is retried, milliseconds. */
const AGAIN = 4000;
/** How often a sheet looks for what was ticked elsewhere, milliseconds. */
const LOOK = 5000;
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
  /** The session that it belongs to; null where none is open yet. */
  readonly session: string | null;
  mark(step: string, change: Partial<Omit<Tick, 'at'>>): void;
  /** Takes in what was ticked elsewhere; of each step the later word counts. */
  bring(ticks: Ticks): void;
  /** Ends the session and begins anew, with nothing ticked. */
  begin(): void;
}

interface State {
  readonly key: string;
  readonly ticks: Ticks;
  readonly session: string | null;
}

/** What counts since a sheet was begun anew. */
const since = (ticks: Ticks, from: number | null): Ticks =>
  from === null ? ticks : Object.fromEntries(Object.entries(ticks).filter(([, t]) => t.at > from));

/**
 * What is done of a sheet: kept in this browser at once, and on the server as soon as it answers. Of each step the
 * later word counts, whoever said it.
 */
export function useTicks(patch: string, rack: string): Ticking {
  const key = keyOf(patch, rack);
  const [state, setState] = useState<State>({ key: '', ticks: {}, session: null });
  const [sent, setSent] = useState(true);
  const now = useRef<Ticks>({});
  const timer = useRef<ReturnType<typeof setTimeout>>(undefined);

  const show = useCallback(
    (ticks: Ticks, session?: string | null): void => {
      now.current = ticks;
      keep(key, ticks);
      setState((s) => ({ key, ticks, session: session === undefined ? (s.key === key ? s.session : null) : session }));
    },
    [key],
  );
  const take = useCallback(
    (all: SheetTicks): void => show(mergedTicks(since(now.current, all.since), all.ticks), all.session),
    [show],
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
            if (now.current === asked || JSON.stringify(now.current) === JSON.stringify(all.ticks)) setSent(true);
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
      .catch((): SheetTicks => ({ ticks: {}, since: null, session: null }))
      .then((all) => {
        if (!live) return;
        take(all);
        // What this browser knew and the server did not.
        if (JSON.stringify(now.current) !== JSON.stringify(all.ticks)) send(0);
      })
      .catch(() => undefined);
    // What a phone ticks meanwhile.
    const look = setInterval(() => {
      if (!document.hidden)
        rackApi.ticks(patch, rack).then(
          (all) => live && take(all),
          () => undefined,
        );
    }, LOOK);
    return () => {
      live = false;
      clearTimeout(timer.current);
      clearInterval(look);
    };
  }, [key, patch, rack, take, send]);

  const bring = (ticks: Ticks): void => {
    show(mergedTicks(now.current, ticks));
    setSent(false);
    send(PAUSE);
  };
  const mark = (step: string, change: Partial<Omit<Tick, 'at'>>): void => {
    const before = now.current[step] ?? { done: false, at: 0 };
    bring({ [step]: { ...before, ...change, at: Date.now() } });
  };
  const begin = (): void => {
    clearTimeout(timer.current);
    rackApi
      .clearTicks(patch, rack)
      .then((all) => show(all.ticks, null))
      .catch(tellFault);
  };
  const own = state.key === key ? state : { ticks: {}, session: null };
  return { ticks: own.ticks, session: own.session, sent, mark, bring, begin };
}
