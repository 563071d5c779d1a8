/** Which tab this is, and which others are there. */

const KEY = 'fenvo.tab';
const lockOf = (id: string): string => `fenvo.tab.${id}`;

let own: string | null = null;

/** A tab that is loaded again is the same; one that was duplicated is another, though it inherits what the first kept. */
function keptId(): string | null {
  try {
    const [entry] = performance.getEntriesByType('navigation') as PerformanceNavigationTiming[];
    return entry?.type === 'reload' || entry?.type === 'back_forward' ? sessionStorage.getItem(KEY) : null;
  } catch {
    return null;
  }
}

export function tabId(): string {
  if (own !== null) return own;
  own = keptId() ?? crypto.randomUUID().slice(0, 8);
  try {
    sessionStorage.setItem(KEY, own);
  } catch {
    // Without it a tab that is loaded again is another one; its draft is offered, not taken up by itself.
  }
  // Held as long as the tab lives, and let go by the browser however it ends.
  void navigator.locks?.request(lockOf(own), () => new Promise(() => undefined));
  return own;
}

/** The tabs of this browser that are open now. */
export async function aliveTabs(): Promise<ReadonlySet<string>> {
  const locks = await navigator.locks?.query();
  const names = (locks?.held ?? []).flatMap((l) => l.name ?? []);
  const prefix = lockOf('');
  return new Set(names.filter((n) => n.startsWith(prefix)).map((n) => n.slice(prefix.length)));
}
