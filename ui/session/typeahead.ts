/** Keys that are typed after a list was asked for and before it is there: they are meant for it. */

/** A list that is not there by then will not come, milliseconds. */
const PATIENCE = 3000;

let typed: string | null = null;
let timer: ReturnType<typeof setTimeout> | undefined;

function hold(e: KeyboardEvent): void {
  if (typed === null || e.ctrlKey || e.metaKey || e.altKey) return;
  if (e.key.length === 1) typed += e.key;
  else if (e.key === 'Backspace') typed = typed.slice(0, -1);
  else return;
  e.preventDefault();
  e.stopImmediatePropagation();
}

function release(): void {
  clearTimeout(timer);
  typed = null;
  window.removeEventListener('keydown', hold, true);
}

/** From now on, what is typed is held for the list that was asked for. */
export function holdKeys(): void {
  release();
  typed = '';
  window.addEventListener('keydown', hold, true);
  timer = setTimeout(release, PATIENCE);
}

/** What was typed for the list, which is there now. */
export function takeKeys(): string {
  const text = typed ?? '';
  release();
  return text;
}
