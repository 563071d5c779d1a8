import { CAPTURE } from '@/wire/capture';
import type { CapturedPart } from '@/wire/capture';

/** How much of what was heard is kept, seconds. */
export const KEPT_SECONDS = 20;

/** Nothing between the socket and the samples: what helps a voice spoils a voltage. */
const WANTED: MediaStreamConstraints = {
  audio: { echoCancellation: false, noiseSuppression: false, autoGainControl: false },
};

/** An input of a sound interface, as a scope has it: the last seconds, full scale as 1. */
export class Capture {
  private readonly ring: Float32Array;
  private heard = 0;
  private lost = 0;

  private constructor(
    private readonly stream: MediaStream,
    private readonly context: AudioContext,
    node: AudioWorkletNode,
    readonly device: string,
  ) {
    this.ring = new Float32Array(Math.ceil(KEPT_SECONDS * context.sampleRate));
    node.port.onmessage = ({ data }: MessageEvent<CapturedPart>) => this.take(data);
  }

  /** Asks for the input; the browser asks the person. @throws Error where it is refused, or there is none. */
  static async open(onLost: () => void): Promise<Capture> {
    // A page that did not come over a safe way has no such thing at all.
    const devices = navigator.mediaDevices as MediaDevices | undefined;
    if (!devices) throw new Error('This page can’t use an input. Open Fenvo on 127.0.0.1, or over HTTPS.');
    const stream = await devices.getUserMedia(WANTED).catch((error: unknown) => {
      const refused = error instanceof DOMException && error.name === 'NotAllowedError';
      throw new Error(refused ? 'The browser was not allowed to use the input.' : 'No audio input was found.');
    });
    const context = new AudioContext();
    try {
      await context.audioWorklet.addModule(CAPTURE.program);
      const node = new AudioWorkletNode(context, CAPTURE.processor, { numberOfOutputs: 0 });
      context.createMediaStreamSource(stream).connect(node);
      await context.resume();
      const [track] = stream.getAudioTracks();
      track?.addEventListener('ended', onLost);
      return new Capture(stream, context, node, track?.label ?? '');
    } catch (error) {
      stream.getTracks().forEach((t) => t.stop());
      void context.close();
      throw error;
    }
  }

  get sampleRate(): number {
    return this.context.sampleRate;
  }

  /** How many samples were heard so far. */
  get samples(): number {
    return this.heard;
  }

  /** How much of it was lost on the way, seconds. */
  get lostSeconds(): number {
    return this.lost / this.sampleRate;
  }

  private take({ samples, lost }: CapturedPart): void {
    const { ring } = this;
    for (const sample of samples) ring[this.heard++ % ring.length] = sample;
    this.lost = lost;
  }

  /** The last samples that were heard, the oldest first; fewer where fewer were. */
  last(seconds: number): Float32Array {
    const { ring, heard } = this;
    const length = Math.min(heard, ring.length, Math.round(seconds * this.sampleRate));
    const from = (heard - length) % ring.length;
    const found = new Float32Array(length);
    const older = ring.subarray(from, from + length);
    found.set(older);
    found.set(ring.subarray(0, length - older.length), older.length);
    return found;
  }

  close(): void {
    this.stream.getTracks().forEach((t) => t.stop());
    void this.context.close();
  }
}
