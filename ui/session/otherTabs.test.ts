import { afterEach, describe, expect, it, vi } from 'vitest';
import { otherTabs, Tabs } from './otherTabs';

/** Channels of one browser: what one says, all others hear. */
function channels(): () => BroadcastChannel {
  const all = new Set<{ onmessage: ((e: MessageEvent) => void) | null }>();
  return () => {
    const channel = {
      onmessage: null as ((e: MessageEvent) => void) | null,
      postMessage(data: unknown): void {
        for (const other of all) if (other !== channel) other.onmessage?.({ data } as MessageEvent);
      },
      close: () => void all.delete(channel),
    };
    all.add(channel);
    return channel as unknown as BroadcastChannel;
  };
}

afterEach(() => otherTabs.setState({ playing: new Map() }));
const playing = (): string[] => [...otherTabs.getState().playing.values()].sort();

describe('tabs that play', () => {
  it('know of each other, the newer of the older too, until they stop or close', () => {
    // All share one store here: each word is heard by every tab but its own.
    const channel = channels();
    const one = new Tabs(vi.fn(), channel());
    one.plays('Low water');
    expect(playing()).toEqual([]);
    const two = new Tabs(vi.fn(), channel());
    expect(playing()).toEqual(['Low water']);
    two.plays('Lamp sweep');
    expect(playing()).toEqual(['Lamp sweep', 'Low water']);
    one.silent();
    expect(playing()).toEqual(['Lamp sweep']);
    two.close();
    expect(playing()).toEqual([]);
  });
  it('fall silent where another wants to be heard alone', () => {
    const channel = channels();
    const [first, second] = [vi.fn(), vi.fn()];
    new Tabs(first, channel());
    new Tabs(second, channel()).hush();
    expect(first).toHaveBeenCalledOnce();
    expect(second).not.toHaveBeenCalled();
  });
  it('are alone in a browser that has no such words', () => {
    const alone = new Tabs(vi.fn(), null);
    alone.plays('Low water');
    alone.close();
    expect(playing()).toEqual([]);
  });
});
