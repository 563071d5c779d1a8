/** Which tab this is, and which others are there. */

const KEY = 'fenvo.tab';
const lockOf = (id: string): string => `fenvo.tab.${id}`;

let own: string | null = null;

function keptId(): string | null {
  try {
    return sessionStorage.getItem(KEY);
  } catch {
    return null;
  }
}

/**
 * Which tab this is: one that goes on to another page, or is loaded again, is the same. A tab that the browser
 * duplicates takes the first one's name with it.
 */
export function tabId(): string {
  if (own !== null) return own;
  own = keptId() ?? crypto.randomUUID().slice(0, 8);
  try {
    sessionStorage.setItem(KEY, own);
  } catch {
    // Without it a tab that is loaded again is another one; its draft is offered, not taken up by itself.
  }
  // Held while the page is there; the browser lets go of it however the page ends.
  void navigator.locks?.request(
    lockOf(own),
    () => new Promise<void>((release) => window.addEventListener('pagehide', () => release())),
  );
  return own;
}

/** The tabs of this browser that are open now. */
export async function aliveTabs(): Promise<ReadonlySet<string>> {
  const locks = await navigator.locks?.query();
  const names = (locks?.held ?? []).flatMap((l) => l.name ?? []);
  const prefix = lockOf('');
  return new Set(names.filter((n) => n.startsWith(prefix)).map((n) => n.slice(prefix.length)));
}
