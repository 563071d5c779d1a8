import { CAPTURE } from '../wire/capture';
import type { CapturedPart } from '../wire/capture';

/** What the browser gives on its sound thread. */
declare const currentFrame: number;
declare function registerProcessor(name: string, processor: new () => unknown): void;
declare class AudioWorkletProcessor {
  readonly port: MessagePort;
}

/** Samples that are handed on together: some sixty times a second. */
const HANDED = 768;

/** A gap longer than this is not filled, samples. */
const LONGEST_GAP = 480_000;

/** Hands on what an input hears, sample for sample; where samples are missing the last one holds, so that time stays true. */
class Capture extends AudioWorkletProcessor {
  private block = new Float32Array(HANDED);
  private filled = 0;
  private last = 0;
  /** The frame that comes next; null until something was heard. */
  private next: number | null = null;
  private lost = 0;

  process(inputs: readonly (readonly Float32Array[])[]): boolean {
    const heard = inputs[0]?.[0];
    if (!heard) return true;
    const missing = this.next === null ? 0 : currentFrame - this.next;
    this.lost += missing;
    for (let i = 0; i < Math.min(missing, LONGEST_GAP); i++) this.put(this.last);
    for (const sample of heard) this.put(sample);
    this.last = heard.at(-1) ?? 0;
    this.next = currentFrame + heard.length;
    return true;
  }

  private put(sample: number): void {
    this.block[this.filled++] = sample;
    if (this.filled < HANDED) return;
    this.port.postMessage({ samples: this.block, lost: this.lost } satisfies CapturedPart, [this.block.buffer]);
    this.block = new Float32Array(HANDED);
    this.filled = 0;
  }
}

registerProcessor(CAPTURE.processor, Capture);
