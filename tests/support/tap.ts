import type { Page } from 'puppeteer-core';

/** What a page's own audio was, both ears, at the device's rate. */
export interface Tapped {
  readonly rate: number;
  readonly left: number[];
  readonly right: number[];
}

interface Window {
  tap: { rate: number; left: Float32Array[]; right: Float32Array[]; context: AudioContext };
}

/**
 * Listens in on all audio that a page hands to its sound device, from when the page is loaded on. The page's policy on
 * scripts does not hold for the listener.
 */
export async function tapAudio(page: Page): Promise<void> {
  await page.setBypassCSP(true);
  await page.evaluateOnNewDocument(() => {
    const program = `registerProcessor('tap', class extends AudioWorkletProcessor {
      process([input]) { if (input[0]) this.port.postMessage([input[0].slice(), (input[1] ?? input[0]).slice()]); return true; }
    });`;
    const url = URL.createObjectURL(new Blob([program], { type: 'text/javascript' }));
    const connect = AudioNode.prototype.connect as (to: AudioNode) => AudioNode;
    const add = AudioWorklet.prototype.addModule;
    // Both are there before the page's own node is: the first sample is heard, too.
    AudioWorklet.prototype.addModule = async function (module: string) {
      await add.call(this, url);
      return add.call(this, module);
    };
    AudioWorkletNode.prototype.connect = function (this: AudioWorkletNode, to: AudioNode) {
      if (to === this.context.destination) {
        const context = this.context as AudioContext;
        const node = new AudioWorkletNode(context, 'tap', { numberOfOutputs: 0 });
        const tap = { rate: context.sampleRate, left: [] as Float32Array[], right: [] as Float32Array[], context };
        (window as unknown as Window).tap = tap;
        node.port.onmessage = ({ data: [left, right] }: MessageEvent<[Float32Array, Float32Array]>) => {
          tap.left.push(left);
          tap.right.push(right);
        };
        connect.call(this, node);
      }
      return connect.call(this, to);
    } as AudioNode['connect'];
  });
}

/** How many samples the page has played since it began to play. */
export const tappedSamples = (page: Page): Promise<number> =>
  page.evaluate(() => (window as unknown as Window).tap.left.length * 128);

/** Waits until it has played for some seconds more. */
export async function hearFor(page: Page, seconds: number): Promise<void> {
  const begun = await tappedSamples(page);
  await page.waitForFunction(
    (from, s) => {
      const { tap } = window as unknown as Window;
      return tap.left.length * 128 >= from + s * tap.rate;
    },
    { timeout: 60_000 },
    begun,
    seconds,
  );
}

/** The audio from one sample to another; left out: to the newest. */
export function heardAudio(page: Page, from = 0, to = Infinity): Promise<Tapped> {
  return page.evaluate(
    (begin, end) => {
      const { tap } = window as unknown as Window;
      const whole = (blocks: Float32Array[]): number[] => blocks.flatMap((b) => [...b]).slice(begin, end ?? undefined);
      return { rate: tap.rate, left: whole(tap.left), right: whole(tap.right) };
    },
    from,
    Number.isFinite(to) ? to : null,
  );
}

/** Stops the device under the page, as a system does. */
export const suspendDevice = (page: Page): Promise<void> =>
  page.evaluate(async () => {
    const { context } = (window as unknown as Window).tap;
    context.resume = () => new Promise(() => undefined);
    await context.suspend();
  });
