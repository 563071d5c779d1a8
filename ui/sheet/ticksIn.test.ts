import { afterEach, describe, expect, it, vi } from 'vitest';
import type { Sheet } from '@/core';
import { ticksIn } from './ticksIn';

const sheet = { steps: [] } as unknown as Sheet;
const file = (name: string, text: string): File => new File([text], name);
const told = (text: string) => ticksIn(sheet, file('ticks.json', text));

afterEach(() => vi.unstubAllGlobals());

describe('ticks that come back as a file', () => {
  it('are read with their times and readings; what is no tick among them is left out', async () => {
    const ticks = {
      'set-slow': { done: true, at: 1000 },
      'measure-slow.out': { done: false, at: 2000, read: '-4.9 V' },
      strange: { done: true },
      worse: { done: true, at: 3, read: 4 },
    };
    expect(await told(JSON.stringify({ format: 'fenvo.ticks', ticks }))).toEqual({
      'set-slow': { done: true, at: 1000 },
      'measure-slow.out': { done: false, at: 2000, read: '-4.9 V' },
    });
  });
  it('of anything else are refused by the file’s name', async () => {
    for (const text of ['{', 'null', '[]', '{"format":"fenvo.patch"}', '{"format":"fenvo.ticks","ticks":null}'])
      await expect(told(text)).rejects.toThrow('ticks.json is not a ticks file.');
  });
});

describe('ticks that come back as a picture', () => {
  it('which is none, or shows no code, is told as that', async () => {
    vi.stubGlobal('createImageBitmap', () => Promise.reject(new Error('bad')));
    await expect(ticksIn(sheet, file('a.png', 'x'))).rejects.toThrow('a.png is not a readable image.');
    const blank = { width: 40, height: 20, close: vi.fn() };
    vi.stubGlobal('createImageBitmap', () => Promise.resolve(blank));
    class Canvas {
      constructor(
        readonly width: number,
        readonly height: number,
      ) {}
      getContext() {
        const data = new Uint8ClampedArray(4 * this.width * this.height).fill(255);
        return { drawImage: () => undefined, getImageData: () => ({ data, width: this.width, height: this.height }) };
      }
    }
    vi.stubGlobal('OffscreenCanvas', Canvas);
    await expect(ticksIn(sheet, file('a.png', 'x'))).rejects.toThrow('No readable code in a.png');
    expect(blank.close).toHaveBeenCalledOnce();
  });
});
