import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest';
import { USUAL } from '@/wire/usual';

/** A window of a tab, and the store that all tabs share. */
function tab(store: Map<string, string>) {
  const window = new EventTarget();
  vi.stubGlobal('window', window);
  vi.stubGlobal('localStorage', {
    getItem: (key: string) => store.get(key) ?? null,
    setItem: (key: string, text: string) => void store.set(key, text),
  });
  const told = (key: string | null): boolean => window.dispatchEvent(Object.assign(new Event('storage'), { key }));
  return { told };
}

beforeEach(() => vi.resetModules());
afterEach(() => vi.unstubAllGlobals());

describe('what this browser keeps of choices', () => {
  it('is there again for the next page, each choice by itself', async () => {
    const store = new Map<string, string>();
    tab(store);
    const { settings, setSetting } = await import('./settings');
    expect(settings.getState()).toEqual({
      ...USUAL,
      guide: 'new',
      welcome: true,
      sections: {},
      cared: false,
      byEar: false,
      asMeasured: false,
      keyTuning: null,
      backupLater: '',
    });
    setSetting('rack', 'pier');
    setSetting('sections', { setup: true });
    vi.resetModules();
    const again = (await import('./settings')).settings.getState();
    expect(again).toMatchObject({ rack: 'pier', sections: { setup: true }, singleKeys: true });
  });
  it('takes searches only as they can be', async () => {
    const whole = { name: 'Gulls', words: 'gulls', tags: [], uses: '', only: [], by: 'name', down: false };
    for (const [searches, read] of [
      [[whole], [whole]],
      [[whole, null], []],
      [[{ name: 'Gulls' }], []],
      ['gulls', []],
    ] as const) {
      vi.resetModules();
      tab(new Map([['fenvo.settings', JSON.stringify({ searches })]]));
      expect((await import('./settings')).settings.getState().searches).toEqual(read);
    }
  });
  it('follows another tab that chose, and one that made the browser forget', async () => {
    const store = new Map<string, string>();
    const { told } = tab(store);
    const { settings } = await import('./settings');
    store.set('fenvo.settings', '{"rack":"other","guide":"off"}');
    told('something.else');
    expect(settings.getState().rack).toBe('');
    told('fenvo.settings');
    expect(settings.getState()).toMatchObject({ rack: 'other', guide: 'off' });
    store.clear();
    told(null);
    expect(settings.getState()).toMatchObject({ rack: '', guide: 'new' });
  });
  it('keeps the theme of an earlier version, and no preference that can’t be', async () => {
    const store = new Map([
      ['mui-mode', 'dark'],
      ['fenvo.settings', '{"pitches":"bells","railVolts":"15","gains":"percent"}'],
    ]);
    tab(store);
    const { settings } = await import('./settings');
    expect(settings.getState()).toMatchObject({ theme: 'dark', pitches: 'hertz', railVolts: 12, gains: 'percent' });
  });
  it('that is damaged, or from elsewhere, is as if nothing was kept', async () => {
    for (const text of ['{', '[]', 'null', '{"guide":7,"sections":[1],"rack":{},"cared":"yes","singleKeys":0}']) {
      vi.resetModules();
      tab(new Map([['fenvo.settings', text]]));
      const { settings } = await import('./settings');
      expect(settings.getState()).toMatchObject({ guide: 'new', sections: {}, rack: '', cared: false });
    }
  });
});

describe('what the server says no to', () => {
  const answers = (response: () => Promise<Response> | Response) =>
    vi.stubGlobal(
      'fetch',
      vi.fn(async () => response()),
    );
  const failureOf = async (): Promise<object> => {
    const { api, ApiFailure } = await import('./api');
    const failure = await api.get('a b').catch((e: unknown) => e);
    expect(failure).toBeInstanceOf(ApiFailure);
    const { status, code, message, details } = failure as InstanceType<typeof ApiFailure>;
    return { status, code, message, details };
  };
  it('is told in its own words, with what it is about', async () => {
    const error = { code: 'conflict', message: 'It was changed meanwhile.', details: { revision: 4 } };
    answers(() => Response.json({ error }, { status: 409 }));
    expect(await failureOf()).toEqual({ status: 409, ...error });
    expect(vi.mocked(fetch).mock.calls[0]![0]).toBe('/api/patches/a%20b');
  });
  it('without words is told by its number; one that is not there, as that', async () => {
    answers(() => new Response('<html>', { status: 502 }));
    expect(await failureOf()).toEqual({
      status: 502,
      code: 'failed',
      message: 'The server answered 502.',
      details: null,
    });
    answers(() => Promise.reject(new TypeError('refused')));
    expect(await failureOf()).toMatchObject({ status: 0, code: 'unreachable' });
  });
  it('a save is sent with its base and its key, and a recording as it is', async () => {
    answers(() => Response.json({ id: 'x', revision: 5 }));
    const { api } = await import('./api');
    await api.save('x', 4, { format: 'fenvo.patch' } as never, 'key-0001');
    await api.putAsset('a & b', 8000, Float32Array.of(1, 2));
    const [[, save], [path, asset]] = vi.mocked(fetch).mock.calls as [[string, RequestInit], [string, RequestInit]];
    expect(JSON.parse(save.body as string)).toEqual({
      baseRevision: 4,
      patch: { format: 'fenvo.patch' },
      key: 'key-0001',
    });
    expect(path).toBe('/api/assets?name=a+%26+b&sampleRate=8000');
    expect(asset.body).toEqual(Float32Array.of(1, 2));
  });
});
