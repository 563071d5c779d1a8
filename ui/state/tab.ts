/** Which tab this is, and which others are there. */

const KEY = 'fenvo.tab';
const lockOf = (id: string): string => `fenvo.tab.${id}`;
/** A page that is just being left may hold its name for a moment longer, milliseconds. */
const PATIENCE = 400;

let own: string | null = null;

const fresh = (): string => crypto.randomUUID().slice(0, 8);

function keptId(): string | null {
  try {
    return sessionStorage.getItem(KEY);
  } catch {
    return null;
  }
}

/** Takes a tab's name for as long as the tab lives; the browser lets go of it however the tab ends. */
function hold(id: string): Promise<boolean> {
  return new Promise((resolve) => {
    if (!navigator.locks) return resolve(true);
    void navigator.locks.request(lockOf(id), { ifAvailable: true }, (lock) => {
      resolve(lock !== null);
      return lock ? new Promise(() => undefined) : undefined;
    });
  });
}

async function holdSoon(id: string): Promise<boolean> {
  for (const end = Date.now() + PATIENCE; ;) {
    if (await hold(id)) return true;
    if (Date.now() > end) return false;
    await new Promise((resolve) => setTimeout(resolve, 50));
  }
}

/**
 * Settles which tab this is: a tab that goes on to another page is the same; one that was duplicated is another, though
 * it inherits what the first kept, for the first holds the name.
 */
export async function tabReady(): Promise<void> {
  if (own !== null) return;
  const kept = keptId();
  if (kept !== null && (await holdSoon(kept))) own = kept;
  else await hold((own = fresh()));
  try {
    sessionStorage.setItem(KEY, own);
  } catch {
    // Without it a tab that is loaded again is another one; its draft is offered, not taken up by itself.
  }
}

export const tabId = (): string => (own ??= fresh());

/** The tabs of this browser that are open now. */
export async function aliveTabs(): Promise<ReadonlySet<string>> {
  const locks = await navigator.locks?.query();
  const names = (locks?.held ?? []).flatMap((l) => l.name ?? []);
  const prefix = lockOf('');
  return new Set(names.filter((n) => n.startsWith(prefix)).map((n) => n.slice(prefix.length)));
}
