import { createStore } from 'zustand';

export interface Hint {
  readonly text: string;
  /** Where the eye is: under what has the focus, pixels of the window. */
  readonly left: number;
  readonly top: number;
}

/** Why what was just asked for cannot be done; gone after a moment. */
export const hint = createStore<{ readonly shown: Hint | null }>(() => ({ shown: null }));

/** How long it is read, milliseconds. */
const LASTS = 1600;

let timer: ReturnType<typeof setTimeout> | undefined;

/** Says why not, at the chosen frame or at what has the focus. */
export function sayWhyNot(text: string): void {
  const focused = document.activeElement === document.body ? null : document.activeElement;
  const at = focused ?? document.querySelector('[data-frame][aria-pressed=true]') ?? document.querySelector('main');
  const box = at?.getBoundingClientRect();
  const left = Math.min(window.innerWidth - 260, Math.max(8, box ? box.left : 8));
  const top = Math.min(window.innerHeight - 60, Math.max(56, box ? box.top + Math.min(box.height, 60) : 56));
  hint.setState({ shown: { text, left, top } });
  clearTimeout(timer);
  timer = setTimeout(() => hint.setState({ shown: null }), LASTS);
}
