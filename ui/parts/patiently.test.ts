import { afterEach, describe, expect, it, vi } from 'vitest';
import { patiently } from './patiently';

/** A part that cannot be read the first times. */
function part(failures: number): { read: () => Promise<string>; asked: () => number } {
  let asked = 0;
  const read = (): Promise<string> =>
    ++asked > failures ? Promise.resolve('the part') : Promise.reject(new Error(`attempt ${asked}`));
  return { read, asked: () => asked };
}

describe('a part that is read when it is shown', () => {
  afterEach(() => vi.unstubAllGlobals());

  it('is asked for once where it is there', async () => {
    const { read, asked } = part(0);
    expect(await patiently(read, 1)()).toBe('the part');
    expect(asked()).toBe(1);
  });
  it('is waited for while no server answers, however long that is', async () => {
    vi.stubGlobal('fetch', () => Promise.reject(new TypeError('Failed to fetch')));
    const { read, asked } = part(20);
    expect(await patiently(read, 1)()).toBe('the part');
    expect(asked()).toBe(21);
  });
  it('is asked for once more when the server is back, and told where it is at fault itself', async () => {
    vi.stubGlobal('fetch', () => Promise.resolve(Response.json({ ok: true })));
    expect(await patiently(part(1).read, 1)()).toBe('the part');
    const { read, asked } = part(Infinity);
    await expect(patiently(read, 1)()).rejects.toThrow('attempt 2');
    expect(asked()).toBe(2);
  });
});
