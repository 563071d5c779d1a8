import { useEffect, useState } from 'react';

/** Whether the same patch is open in another tab of this browser. */
export function useOtherTabs(id: string): boolean {
  const [others, setOthers] = useState(false);
  useEffect(() => {
    const channel = new BroadcastChannel('fenvo.tabs');
    channel.onmessage = ({ data }: MessageEvent<{ id: string; says: 'here' | 'me too' | 'gone' }>) => {
      if (data.id !== id) return;
      if (data.says === 'here') channel.postMessage({ id, says: 'me too' });
      setOthers(data.says !== 'gone');
    };
    channel.postMessage({ id, says: 'here' });
    const leave = (): void => channel.postMessage({ id, says: 'gone' });
    window.addEventListener('pagehide', leave);
    return () => {
      window.removeEventListener('pagehide', leave);
      leave();
      channel.close();
    };
  }, [id]);
  return others;
}
