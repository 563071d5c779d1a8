import { CAPTURE } from '../wire/capture';

/** What the browser gives on its sound thread. */
declare function registerProcessor(name: string, processor: new () => unknown): void;
declare class AudioWorkletProcessor {
  readonly port: MessagePort;
}

/** Samples that are handed on together: some sixty times a second. */
const HANDED = 768;

/** Hands on what an input hears, sample for sample. */
class Capture extends AudioWorkletProcessor {
  private block = new Float32Array(HANDED);
  private filled = 0;

  process(inputs: readonly (readonly Float32Array[])[]): boolean {
    const heard = inputs[0]?.[0];
    if (!heard) return true;
    for (const sample of heard) {
      this.block[this.filled++] = sample;
      if (this.filled < HANDED) continue;
      this.port.postMessage(this.block, [this.block.buffer]);
      this.block = new Float32Array(HANDED);
      this.filled = 0;
    }
    return true;
  }
}

registerProcessor(CAPTURE.processor, Capture);
