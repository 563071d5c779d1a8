import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest';
import { printPatch } from '@/core';
import { patchOf } from '@/core/testing/patch';

/** A browser's store, as large as browsers make it, or one that refuses. */
class FakeStore {
  private readonly kept = new Map<string, string>();
  constructor(private readonly room = 5_000_000) {}
  get length(): number {
    return this.kept.size;
  }
  key(i: number): string | null {
    return [...this.kept.keys()][i] ?? null;
  }
  getItem(key: string): string | null {
    return this.kept.get(key) ?? null;
  }
  setItem(key: string, text: string): void {
    const others = [...this.kept].reduce((sum, [k, t]) => sum + (k === key ? 0 : k.length + t.length), 0);
    if (others + key.length + text.length > this.room) throw new DOMException('full', 'QuotaExceededError');
    this.kept.set(key, text);
  }
  removeItem(key: string): void {
    this.kept.delete(key);
  }
}

const alive = vi.fn<() => string[]>(() => []);
async function tab(id: string, store: FakeStore) {
  vi.resetModules();
  vi.stubGlobal('window', { localStorage: store, addEventListener: () => undefined });
  vi.stubGlobal('sessionStorage', { getItem: () => id, setItem: () => undefined });
  vi.stubGlobal('navigator', {
    locks: {
      request: () => Promise.resolve(),
      query: async () => ({ held: alive().map((t) => ({ name: `fenvo.tab.${t}` })) }),
    },
  });
  const { messages } = await import('@/ui/parts/messages');
  return { ...(await import('./draft')), said: () => messages.getState().message?.text ?? null };
}

const patch = patchOf({ l: ['lfo', { rateHz: 3 }], f: ['filter'] }, ['l.out > f.cutoff']);

beforeEach(() => alive.mockReturnValue([]));
afterEach(() => vi.unstubAllGlobals());

describe('what is not saved yet', () => {
  it('is there again when the same tab is loaded anew, as it was', async () => {
    const store = new FakeStore();
    (await tab('one', store)).keepDraft('p1', 7, patch, 'key-1');
    const again = await tab('one', store);
    const draft = again.readDraft('p1');
    expect(draft).toMatchObject({ baseRevision: 7, sentKey: 'key-1' });
    expect(printPatch(draft!.patch)).toEqual(printPatch(patch));
    expect(again.readDraft('p2')).toBeNull();
    again.dropDraft('p1');
    expect(again.readDraft('p1')).toBeNull();
    expect(store.length).toBe(0);
  });

  it('of tabs that are gone is offered, newest first; of those that are open, and of other patches, not', async () => {
    const store = new FakeStore();
    vi.useFakeTimers({ toFake: ['Date'] });
    for (const [i, name] of ['old', 'new', 'open'].entries()) {
      vi.setSystemTime(1_000_000 * (i + 1));
      (await tab(name, store)).keepDraft('p1', i, patch, null);
    }
    (await tab('else', store)).keepDraft('p10', 9, patch, null);
    vi.useRealTimers();
    alive.mockReturnValue(['open']);
    const mine = await tab('me', store);
    mine.keepDraft('p1', 5, patch, null);
    expect((await mine.leftDrafts('p1')).map((d) => d.baseRevision)).toEqual([1, 0]);
    for (const { key } of await mine.leftDrafts('p1')) mine.dropDraft('p1', key);
    expect(await mine.leftDrafts('p1')).toEqual([]);
    expect(mine.readDraft('p1')?.baseRevision).toBe(5);
  });

  it('that cannot be read is left out, not a fault', async () => {
    const store = new FakeStore();
    store.setItem('fenvo.draft.p1.broken', '{"baseRevision":');
    store.setItem('fenvo.draft.p1.strange', '{"baseRevision":1,"patch":{"format":"no.patch"},"at":"2026-01-01"}');
    store.setItem('fenvo.draft.p1.none', 'null');
    const mine = await tab('me', store);
    expect(await mine.leftDrafts('p1')).toEqual([]);
    // An older one has neither a time nor a tab.
    store.setItem('fenvo.draft.p1', JSON.stringify({ baseRevision: 3, patch: printPatch(patch) }));
    expect(await mine.leftDrafts('p1')).toMatchObject([{ baseRevision: 3, sentKey: null, at: null }]);
  });
});

describe('a browser that has no room', () => {
  it('is told when it is full, and before, each once', async () => {
    const full = await tab('me', new FakeStore(200));
    full.keepDraft('p1', 1, patch, null);
    expect(full.said()).toContain('storage is full');
    const store = new FakeStore();
    store.setItem('other', 'x'.repeat(4_400_000));
    const near = await tab('me', store);
    near.keepDraft('p1', 1, patch, null);
    expect(near.said()).toContain('almost full');
    expect(near.readDraft('p1')).not.toBeNull();
  });

  it('and one that keeps nothing at all is told as that', async () => {
    const refuses = await tab('me', new FakeStore());
    vi.stubGlobal('window', {
      get localStorage(): never {
        throw new DOMException('blocked', 'SecurityError');
      },
      addEventListener: () => undefined,
    });
    refuses.keepDraft('p1', 1, patch, null);
    expect(refuses.said()).toContain('blocks local storage');
    expect(refuses.readDraft('p1')).toBeNull();
    expect(await refuses.leftDrafts('p1')).toEqual([]);
  });
});
