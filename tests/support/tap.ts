import type { Page } from 'puppeteer-core';

/** What a page's own audio was, both ears, at the device's rate. */
export interface Tapped {
  readonly rate: number;
  readonly left: number[];
  readonly right: number[];
}

interface Window {
  tap: { rate: number; samples: number; left: Float32Array[]; right: Float32Array[]; context: AudioContext };
}

/** Samples that the listener hands over at once: a multiple of a block of 128. */
const CHUNK = 1024;

/**
 * Listens in on all audio that a page hands to its sound device, from when the page is loaded on. The page's policy on
 * scripts does not hold for the listener.
 */
export async function tapAudio(page: Page): Promise<void> {
  await page.setBypassCSP(true);
  await page.evaluateOnNewDocument((chunk) => {
    const program = `registerProcessor('tap', class extends AudioWorkletProcessor {
      ears = [0, 1].map(() => new Float32Array(${chunk}));
      filled = 0;
      process([input]) {
        if (!input[0]) return true;
        this.ears.forEach((ear, i) => ear.set(input[i] ?? input[0], this.filled));
        this.filled = (this.filled + input[0].length) % ${chunk};
        if (this.filled === 0) this.port.postMessage(this.ears);
        return true;
      }
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
        const tap = {
          rate: context.sampleRate,
          samples: 0,
          left: [] as Float32Array[],
          right: [] as Float32Array[],
          context,
        };
        (window as unknown as Window).tap = tap;
        node.port.onmessage = ({ data: [left, right] }: MessageEvent<[Float32Array, Float32Array]>) => {
          tap.left.push(left);
          tap.right.push(right);
          tap.samples += left.length;
        };
        connect.call(this, node);
      }
      return connect.call(this, to);
    } as AudioNode['connect'];
  }, CHUNK);
}

/** How many samples the page has played since it began to play. */
export const tappedSamples = (page: Page): Promise<number> =>
  page.evaluate(() => (window as unknown as Window).tap.samples);

/** Waits until it has played for some seconds more. */
export async function hearFor(page: Page, seconds: number): Promise<void> {
  const begun = await tappedSamples(page);
  await page.waitForFunction(
    (from, s) => {
      const { tap } = window as unknown as Window;
      return tap.samples >= from + s * tap.rate;
    },
    { timeout: 60_000 },
    begun,
    seconds,
  );
}

/** The audio from one sample to another; left out: to the newest. It comes over as its bytes, which JSON is slow at. */
export async function heardAudio(page: Page, from = 0, to = Infinity): Promise<Tapped> {
  const { rate, ears } = await page.evaluate(
    async (begin, end, chunk) => {
      const { tap } = window as unknown as Window;
      const first = Math.floor(begin / chunk);
      const last = end === null ? undefined : Math.ceil(end / chunk);
      const packed = async (blocks: Float32Array[]): Promise<string> => {
        const bytes = new Blob(blocks.slice(first, last) as BlobPart[]);
        const url = await new Promise<string>((done) => {
          const reader = new FileReader();
          reader.onload = () => done(reader.result as string);
          reader.readAsDataURL(bytes);
        });
        return url.slice(url.indexOf(',') + 1);
      };
      return { rate: tap.rate, ears: [await packed(tap.left), await packed(tap.right)] };
    },
    from,
    Number.isFinite(to) ? to : null,
    CHUNK,
  );
  const offset = from % CHUNK;
  const [left = [], right = []] = ears.map((text) => {
    const { buffer, byteOffset, length } = Buffer.from(text, 'base64');
    return [...new Float32Array(buffer.slice(byteOffset, byteOffset + length))].slice(offset, offset + to - from);
  });
  return { rate, left, right };
}

/** Stops the device under the page, as a system does. */
export const suspendDevice = (page: Page): Promise<void> =>
  page.evaluate(async () => {
    const { context } = (window as unknown as Window).tap;
    context.resume = () => new Promise(() => undefined);
    await context.suspend();
  });
