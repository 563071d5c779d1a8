import { useState } from 'react';
import type { FocusEvent, KeyboardEvent } from 'react';

const CONTROLS = 'input, a, button';

const rowOf = (e: { readonly target: EventTarget }): HTMLElement | null =>
  (e.target as Element).closest<HTMLElement>('[data-index]');

/**
 * One row of a list is reached by Tab; the arrows go to the other rows, and to the other controls of a row.
 *
 * @param ids of the rows that are drawn, by index.
 */
export function useRowKeys(ids: ReadonlyMap<number, string>) {
  const [at, setAt] = useState<string | null>(null);
  const drawn = [...ids.values()];
  const reached = at !== null && drawn.includes(at) ? at : (drawn[0] ?? null);
  const onFocus = (e: FocusEvent): void => setAt(ids.get(Number(rowOf(e)?.dataset.index)) ?? at);
  const onKeyDown = (e: KeyboardEvent<HTMLElement>): void => {
    const row = rowOf(e);
    const down = { ArrowDown: 1, ArrowUp: -1 }[e.key];
    const right = { ArrowRight: 1, ArrowLeft: -1 }[e.key];
    if (!row || (down === undefined && right === undefined)) return;
    const controls = [...row.querySelectorAll<HTMLElement>(CONTROLS)];
    const column = controls.indexOf(e.target as HTMLElement);
    if (column < 0) return;
    e.preventDefault();
    if (right !== undefined) return controls[column + right]?.focus();
    const next = e.currentTarget.querySelector(`[data-index="${Number(row.dataset.index) + (down ?? 0)}"]`);
    next?.querySelectorAll<HTMLElement>(CONTROLS)[column]?.focus();
  };
  return { reached, onFocus, onKeyDown };
}
