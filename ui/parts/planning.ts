import { wrap } from 'comlink';
import type { Remote } from 'comlink';
import { useEffect, useState } from 'react';
import type { PlanWorker } from '@/wire/core';

let open: { readonly worker: Worker; readonly remote: Remote<PlanWorker> } | null = null;

function planner(): Remote<PlanWorker> {
  if (open) return open.remote;
  const worker = new Worker(new URL('@/workers/plan.worker.ts', import.meta.url), { type: 'module' });
  open = { worker, remote: wrap<PlanWorker>(worker) };
  return open.remote;
}

/** Ends what the planner works at; what is asked next gets a new one. */
function endPlanner(): void {
  open?.worker.terminate();
  open = null;
}

/** How long an edit is waited for before the planner is asked, milliseconds. */
const QUIET = 250;
/** How long a silent planner is waited for before it is ended, milliseconds. */
const PATIENCE = 30_000;

/** A question to the planner. */
export type Asked<T> = (worker: Remote<PlanWorker>) => Promise<T>;

export interface Planned<T> {
  /** The answer to this very question; null until it is there. */
  readonly answer: T | null;
  /** The last answer, which may be of what was asked before: to look at meanwhile. */
  readonly last: T | null;
  readonly busy: boolean;
  readonly failure: string | null;
}

interface State<T> extends Omit<Planned<T>, 'answer'> {
  /** What the last answer is to. */
  readonly of: Asked<T> | null;
}

const NOTHING = { answer: null, last: null, busy: false, failure: null } as const;

/**
 * Asks the planner, once nothing has changed for a while; a question that is overtaken is dropped, and one that runs is
 * ended.
 *
 * @param ask null asks nothing; otherwise the same function for the same question.
 */
export function usePlanned<T>(ask: Asked<T> | null): Planned<T> {
  const [state, setState] = useState<State<T>>({ of: null, last: null, busy: false, failure: null });
  useEffect(() => {
    if (!ask) return undefined;
    let live = true;
    let running = false;
    let patience: ReturnType<typeof setTimeout> | undefined;
    const timer = setTimeout(() => {
      running = true;
      setState((s) => ({ ...s, busy: true, failure: null }));
      patience = setTimeout(() => {
        endPlanner();
        if (live) setState((s) => ({ ...s, busy: false, failure: 'Planning timed out.' }));
      }, PATIENCE);
      ask(planner())
        .then((last) => live && setState({ of: ask, last, busy: false, failure: null }))
        .catch((error: unknown) => live && setState((s) => ({ ...s, busy: false, failure: String(error) })))
        .finally(() => {
          running = false;
          clearTimeout(patience);
        });
    }, QUIET);
    return () => {
      live = false;
      clearTimeout(timer);
      clearTimeout(patience);
      if (running) endPlanner();
    };
  }, [ask]);
  const { of, last, busy, failure } = state;
  return ask ? { answer: of === ask ? last : null, last, busy, failure } : NOTHING;
}
