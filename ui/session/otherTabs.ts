import { createStore } from 'zustand';

/** What tabs of this browser tell each other. */
type Word =
  | { readonly is: 'plays'; readonly tab: string; readonly name: string }
  | { readonly is: 'silent'; readonly tab: string }
  /** Who plays? */
  | { readonly is: 'asks' }
  /** All others fall silent. */
  | { readonly is: 'hush'; readonly tab: string };

/** The patches that other tabs play, by tab. */
export const otherTabs = createStore<{ readonly playing: ReadonlyMap<string, string> }>(() => ({ playing: new Map() }));

/** This tab's word to the others of the browser: two patches at once are no fault, but nobody should wonder. */
export class Tabs {
  private readonly channel: BroadcastChannel | null;
  private readonly tab = Math.random().toString(36).slice(2);
  private name: string | null = null;

  /** @param onHush another tab wants to be heard alone. */
  constructor(
    private readonly onHush: () => void,
    channel: BroadcastChannel | null = typeof BroadcastChannel === 'undefined'
      ? null
      : new BroadcastChannel('fenvo.sound'),
  ) {
    this.channel = channel;
    if (!channel) return;
    channel.onmessage = ({ data }: MessageEvent<Word>) => this.take(data);
    this.tell({ is: 'asks' });
  }

  private tell(word: Word): void {
    this.channel?.postMessage(word);
  }

  private take(word: Word): void {
    if (word.is === 'asks') {
      if (this.name !== null) this.tell({ is: 'plays', tab: this.tab, name: this.name });
    } else if (word.is === 'hush') this.onHush();
    else {
      const playing = new Map(otherTabs.getState().playing);
      if (word.is === 'plays') playing.set(word.tab, word.name);
      else playing.delete(word.tab);
      otherTabs.setState({ playing });
    }
  }

  plays(name: string): void {
    this.name = name;
    this.tell({ is: 'plays', tab: this.tab, name });
  }

  silent(): void {
    if (this.name === null) return;
    this.name = null;
    this.tell({ is: 'silent', tab: this.tab });
  }

  /** Stops all others. */
  hush(): void {
    this.tell({ is: 'hush', tab: this.tab });
  }

  close(): void {
    this.silent();
    this.channel?.close();
    otherTabs.setState({ playing: new Map() });
  }
}
