'use client';
import { useEffect } from 'react';

/** Told once, when the page runs. */
const RUNS = 'fenvo:runs';

/**
 * Keeps the last button that is pressed while the page is drawn but does not run yet, and presses it once it does. A
 * slow machine takes seconds to that, and the press would be lost. Links work without the page.
 */
const script = `(() => {
  let pressed = null;
  const keep = (event) => {
    const button = event.target.closest('button');
    if (!button) return;
    event.preventDefault();
    event.stopPropagation();
    pressed = button;
  };
  addEventListener('click', keep, true);
  addEventListener('${RUNS}', () => {
    removeEventListener('click', keep, true);
    pressed?.click();
  }, { once: true });
})()`;

/** Stands before what can be pressed. */
export function EarlyPresses({ nonce }: { readonly nonce: string }) {
  // Once all of the page is at work.
  useEffect(() => void setTimeout(() => window.dispatchEvent(new Event(RUNS))), []);
  return <script suppressHydrationWarning nonce={nonce} dangerouslySetInnerHTML={{ __html: script }} />;
}
