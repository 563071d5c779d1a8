import { useState } from 'react';
import type { FocusEvent, KeyboardEvent } from 'react';

const CONTROLS = 'input, a, button';

const rowOf = (e: { readonly target: EventTarget }): HTMLElement | null =>
  (e.target as Element).closest<HTMLElement>('[data-patch]');

/** One row of a list is reached by Tab; the arrows go to the other rows, and to the other controls of a row. */
export function useRowKeys(ids: readonly string[]) {
  const [at, setAt] = useState<string | null>(null);
  const reached = at !== null && ids.includes(at) ? at : (ids[0] ?? null);
  const onFocus = (e: FocusEvent): void => {
    const id = rowOf(e)?.dataset.patch;
    if (id !== undefined) setAt(id);
  };
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
    const id = ids[ids.indexOf(row.dataset.patch ?? '') + (down ?? 0)];
    const next = e.currentTarget.querySelector(`[data-patch="${id ?? ''}"]`);
    next?.querySelectorAll<HTMLElement>(CONTROLS)[column]?.focus();
  };
  return { reached, onFocus, onKeyDown };
}
