import { tell } from '@/ui/parts/messages';
import { settings } from '@/ui/parts/settings';

interface Played {
  plays(): boolean;
  stop(): void;
  /** How often sound came too late by now. */
  dropouts(): number;
}

/**
 * What becomes of sound when its tab is hidden: it goes on, or stops, as it is preferred; gaps that came meanwhile are
 * told when somebody looks again.
 *
 * @returns ends it.
 */
export function watchBackground({ plays, stop, dropouts }: Played): () => void {
  let [hidden, before] = [false, 0];
  const change = (): void => {
    if (document.visibilityState === 'hidden') {
      hidden = plays();
      before = dropouts();
      if (!hidden || settings.getState().background) return;
      stop();
      tell('Playback stopped because this tab was hidden. You can let it go on under Listening.');
      return;
    }
    const gaps = dropouts() - before;
    if (hidden && plays() && gaps > 0)
      tell(`${gaps} ${gaps === 1 ? 'dropout' : 'dropouts'} while this tab was in the background.`);
    hidden = false;
  };
  document.addEventListener('visibilitychange', change);
  return () => document.removeEventListener('visibilitychange', change);
}
