import type { Measures, Patch, Prediction } from '../core';

/** What the page asks of the core's worker, and what comes back. */

export interface PictureData {
  readonly min: Float32Array;
  readonly max: Float32Array;
}

export interface PreviewRequest {
  readonly patch: Patch;
  /** Only what these sockets depend on is run. */
  readonly sockets: readonly string[];
  readonly columns: number;
}

export interface PreviewAnswer {
  readonly pictures: ReadonlyMap<string, PictureData>;
  readonly sampleRate: number;
  readonly milliseconds: number;
}

export interface FullRequest {
  readonly patch: Patch;
  readonly columns: number;
  /** Sockets whose whole traces are wanted. */
  readonly probes: readonly string[];
}

export interface ProbeAnswer {
  readonly trace: Float32Array;
  readonly measures: Measures;
}

export interface FullAnswer extends PreviewAnswer {
  readonly prediction: Prediction;
  readonly probes: ReadonlyMap<string, ProbeAnswer>;
}

export interface CoreWorker {
  preview(request: PreviewRequest): PreviewAnswer;
  full(request: FullRequest): FullAnswer;
}
