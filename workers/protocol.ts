import type { Finding, Measures, Patch, Prediction, ProductLine, Spectrum } from '../core';

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
  /** In a preview, those that have changed since the last one. */
  readonly pictures: ReadonlyMap<string, PictureData>;
  readonly sampleRate: number;
  readonly milliseconds: number;
}

export interface FullRequest {
  readonly patch: Patch;
  readonly columns: number;
  /** Sockets whose whole traces are wanted. */
  readonly probes: readonly string[];
  /** Of them, those whose spectrum is wanted too. */
  readonly spectra: readonly string[];
}

export interface SpectrumAnswer extends Spectrum {
  /** Of a product of two sines: where its lines must lie. */
  readonly products: readonly ProductLine[];
}

export interface ProbeAnswer {
  readonly trace: Float32Array;
  readonly measures: Measures;
  /** Of a destination's input: what it comes to there, in its own unit; silence is −∞. */
  readonly figure: { readonly trace: Float32Array; readonly unit: string } | null;
}

export interface FullAnswer extends PreviewAnswer {
  readonly prediction: Prediction;
  readonly probes: ReadonlyMap<string, ProbeAnswer>;
  readonly spectra: ReadonlyMap<string, SpectrumAnswer>;
}

/** Findings with the cures that keep their promise. */
export interface CuresAnswer {
  readonly findings: readonly Finding[];
}

export interface CoreWorker {
  preview(request: PreviewRequest): Promise<PreviewAnswer>;
  full(request: FullRequest): Promise<FullAnswer>;
  /** Of the patch that was last asked for in full. */
  cures(): Promise<CuresAnswer>;
}
