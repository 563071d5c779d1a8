import { useEffect, useState } from 'react';

/** What tabs say of themselves to each other. */
export interface TabWord {
  readonly id: string;
  /** The page that speaks: differs for each. */
  readonly page: string;
  readonly says: 'here' | 'me too' | 'gone';
}

/** The other pages that have a patch open, after a word from one of them. */
export function heardFrom(others: ReadonlySet<string>, { page, says }: TabWord): ReadonlySet<string> {
  const next = new Set(others);
  if (says === 'gone') next.delete(page);
  else next.add(page);
  return next;
}

/** Whether the same patch is open in another tab of this browser. */
export function useOtherTabs(id: string): boolean {
  const [others, setOthers] = useState<ReadonlySet<string>>(new Set());
  useEffect(() => {
    const page = crypto.randomUUID();
    const channel = new BroadcastChannel('fenvo.tabs');
    const say = (says: TabWord['says']): void => channel.postMessage({ id, page, says } satisfies TabWord);
    channel.onmessage = ({ data }: MessageEvent<TabWord>) => {
      if (data.id !== id || data.page === undefined) return;
      if (data.says === 'here') say('me too');
      setOthers((now) => heardFrom(now, data));
    };
    say('here');
    const leave = (): void => say('gone');
    window.addEventListener('pagehide', leave);
    return () => {
      window.removeEventListener('pagehide', leave);
      leave();
      channel.close();
      setOthers(new Set());
    };
  }, [id]);
  return others.size > 0;
}
