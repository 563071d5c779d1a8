import type { Patch } from '../core';
import type { LoudnessOver } from '../core/answers/loudnessVariants';
import type { RenderBits } from '../core/live/renderLimits';
import type { ListenTo } from './live';

/** One thing to work out of how a patch sounds. */
export interface RenderRequest {
  readonly patch: Patch;
  /** Two ears, or sockets as they are. */
  readonly of: ListenTo | readonly string[];
  readonly seconds: number;
  readonly sampleRate: number;
  readonly bits: RenderBits;
}

export interface RenderedFile {
  readonly file: Blob;
  readonly over: number;
  /** Greatest sample, of full scale. */
  readonly peak: number;
}

/** What is worked out beside the page of how patches sound. */
export interface ListenWorker {
  /** Root mean squares, of full scale, of what each is listened to. */
  loudness(sides: readonly { readonly patch: Patch; readonly ears: ListenTo }[]): Promise<readonly number[]>;
  /** How loud a signal passes an amplifier over the window, in each of its loudnessVariants. */
  loudnessVariants(patch: Patch, id: string): Promise<readonly LoudnessOver[]>;
  render(request: RenderRequest): Promise<RenderedFile>;
}
