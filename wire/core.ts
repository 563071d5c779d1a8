import type {
  Assignment,
  Edit,
  EndsPlan,
  EndsRequest,
  Finding,
  Measures,
  TargetStanding,
  ModuleBounds,
  ModuleErrors,
  Patch,
  PatchMap,
  Plan,
  PlanRequest,
  Prediction,
  ProductLine,
  Rack,
  Range,
  SolveAnswer,
  SolveOptions,
  Spectrum,
  ToleranceReport,
} from '../core';

/** What the page asks of the core's worker, and what comes back. */

/**
 * The patch that is asked about: whole, or as edits on the version that the worker holds. Versions count up on the
 * page; an answer carries the one that it is for.
 */
export type PatchStep =
  | { readonly version: number; readonly patch: Patch }
  | { readonly version: number; readonly on: number; readonly edits: readonly Edit[] };

export interface PictureData {
  /** Extremes of the whole run, volts; the columns may be of a part of it. */
  readonly reach: Range;
  readonly min: Float32Array;
  readonly max: Float32Array;
}

export interface PreviewRequest {
  /** The part of the run that pictures are of, seconds; null for all of it. */
  readonly window: Range | null;
  /** Only what these sockets depend on is run. */
  readonly sockets: readonly string[];
  readonly columns: number;
}

export interface PreviewAnswer {
  readonly version: number;
  /** In a preview, those that have changed since the last one. */
  readonly pictures: ReadonlyMap<string, PictureData>;
  readonly sampleRate: number;
  readonly milliseconds: number;
}

export interface FullRequest {
  /** As the page has worked them out for this very patch. */
  readonly bounds: ReadonlyMap<string, ModuleBounds>;
  readonly window: Range | null;
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
  /** How targets stand that can only be told by running the patch. */
  readonly missed: readonly TargetStanding[];
}

/** Findings with the cures that keep their promise. */
export interface CuresAnswer {
  readonly version: number;
  readonly findings: readonly Finding[];
}

/** How the solver is asked; recordings and progress are the worker's own. */
export type SolveRequest = Omit<SolveOptions, 'asset' | 'progress'>;

export interface SolveReply {
  readonly version: number;
  readonly answer: SolveAnswer;
}

/** How many draws, and one sigma of what is off. */
export type ToleranceRequest = ModuleErrors & {
  readonly modules: Readonly<Record<string, Partial<ModuleErrors>>>;
  readonly draws: number;
};

export interface ToleranceReply {
  readonly version: number;
  readonly report: ToleranceReport;
}

export interface CoreWorker {
  preview(step: PatchStep, request: PreviewRequest): Promise<PreviewAnswer>;
  full(step: PatchStep, request: FullRequest): Promise<FullAnswer>;
  /** Of the patch that was last asked for in full. */
  cures(): Promise<CuresAnswer>;
  /** Lets go of all that was asked: another patch comes next. */
  forget(): Promise<void>;
}

/** What the page asks of the solver's worker. */
export interface SolveWorker {
  /** The knobs that meet the targets of the patch. */
  solve(step: PatchStep, request: SolveRequest): Promise<SolveReply>;
  /** What knobs, gains and offsets that are a little off do to it. */
  tolerance(step: PatchStep, request: ToleranceRequest): Promise<ToleranceReply>;
}

/** What the page asks of the planner's worker. */
export interface PlanWorker {
  /** Which channel plays which module. */
  assign(patch: Patch, rack: Rack): Promise<Assignment>;
  /** Chains for what shall arrive; with what a rack has free, or with anything. */
  plan(request: PlanRequest, rack: Rack | null): Promise<Plan>;
  /** Chains from one source to several ends, in one patch. */
  ends(request: EndsRequest, rack: Rack | null): Promise<EndsPlan>;
  /** Which source moves which destination; with the means of outputs as the last simulation saw them. */
  map(patch: Patch, means: ReadonlyMap<string, number>): Promise<PatchMap>;
}
