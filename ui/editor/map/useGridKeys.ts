import { useState } from 'react';
import type { KeyboardEvent } from 'react';

const MOVES: Readonly<Record<string, readonly [dy: number, dx: number]>> = {
  ArrowUp: [-1, 0],
  ArrowDown: [1, 0],
  ArrowLeft: [0, -1],
  ArrowRight: [0, 1],
  PageUp: [-8, 0],
  PageDown: [8, 0],
  Home: [0, -Infinity],
  End: [0, Infinity],
};

const inside = (x: number, count: number): number => Math.min(count - 1, Math.max(0, x));

/** One cell of a table is reached by Tab; arrows, Home, End and the page keys go on from there. */
export function useGridKeys(rows: number, columns: number) {
  const [at, setAt] = useState<readonly [number, number]>([0, 0]);
  const [y, x] = [inside(at[0], rows), inside(at[1], columns)];
  const onKeyDown = (e: KeyboardEvent<HTMLElement>): void => {
    const move = MOVES[e.key];
    const from = (e.target as Element).closest<HTMLElement>('[data-cell]')?.dataset.cell?.split(' ').map(Number);
    if (!move || !from) return;
    e.preventDefault();
    const next = [inside((from[0] ?? 0) + move[0], rows), inside((from[1] ?? 0) + move[1], columns)] as const;
    setAt(next);
    e.currentTarget.querySelector<HTMLElement>(`[data-cell="${next.join(' ')}"]`)?.focus();
  };
  return { reached: `${y} ${x}`, onKeyDown };
}
