import type { ModuleBounds } from '../bounds/bounds';
import type { Repeats } from '../bounds/repeats';
import type { Wiring } from '../kinds/kind';
import type { Range } from '../law/affine';
import type { Memory } from './memory';
import type { Picture } from './stats';

/** Sees every block of the sockets it names. */
export interface Observer {
  readonly sockets: readonly string[];
  block(buffers: readonly Float64Array[], count: number, k0: number): void;
}

/** What an earlier run of the same window left. */
export interface Given {
  /** Indices of the modules that are run. */
  readonly fresh: ReadonlySet<number>;
  /** By output socket, whole windows. */
  readonly traces: ReadonlyMap<string, Float64Array>;
}

export interface Carried {
  /** By module's name and kind. */
  readonly memories: ReadonlyMap<string, Memory>;
  /** What cables that carry the previous sample carry next, by input socket. */
  readonly delayed: ReadonlyMap<string, number>;
}

export interface SimulateOptions {
  /** Sockets whose whole traces are kept. */
  readonly traces?: readonly string[];
  /** Destinations, by the socket that they are read at, whose drive is kept whole: all that counts, as one voltage. */
  readonly drives?: readonly string[];
  /** Runs only what these sockets depend on; nothing is said of the rest. */
  readonly only?: readonly string[];
  /** Columns of the pictures of every output; 0 for none. */
  readonly columns?: number;
  /** The part of the run that pictures are of, seconds; left out: all of it. */
  readonly window?: Range;
  readonly observers?: readonly Observer[];
  readonly asset?: Wiring['asset'];
  readonly blockSize?: number;
  /** Told now and then how far the run is, 0..1. */
  readonly progress?: (share: number) => void;
  /** Guaranteed ranges of this very graph: outputs that stay inside the rails need not be held there. */
  readonly bounds?: ReadonlyMap<string, ModuleBounds>;
  /** How each module's outputs repeat, by its id: where the last whole period begins. */
  readonly repeats?: ReadonlyMap<string, Repeats>;
  /** Modules whose outputs are known, and the traces of those that others need: they are not run again. */
  readonly given?: Given;
  /** What modules of an earlier run remember, for those of the same name and kind to go on from. */
  readonly carried?: Carried;
  /** Leaves out outputs that nothing is plugged into and nobody asks for. */
  readonly sparing?: boolean;
}

export interface OutputSeen extends Measured {
  /** Extremes of the last whole period, else of the second half of the window. */
  readonly settled: Range;
  /** Extremes of what arrives, of the part of the window that counts for it. */
  readonly arrives: Range;
  /** Share of the samples beyond each rail, 0..1. */
  readonly clippedLow: number;
  readonly clippedHigh: number;
}

/** Shares of the samples that a kind's own hard limit cuts, 0..1. */
export interface Cut {
  readonly low: number;
  readonly high: number;
}

export interface Measured {
  readonly min: number;
  readonly max: number;
  readonly mean: number;
  readonly rms: number;
}

export interface GateSeen {
  readonly rises: number;
  /** Pulses a second, by whole periods where it repeats. */
  readonly perSecond: number;
  /** Share of the time, 0..1. */
  readonly high: number;
  readonly longestHighSeconds: number;
}

export interface EndSeen {
  readonly drive: Measured;
  /** Where hands turn its module's knobs: the least and the greatest figure, each at the settings of its moment. */
  readonly figures?: readonly [number | null, number | null];
  /** Extremes of the drive, and those figures, in the part of the window that counts for what arrives. */
  readonly arrives: Range;
  readonly arrivingFigures?: readonly [number | null, number | null];
  /** Shares of the samples, 0..1. */
  readonly below: number;
  readonly atOrBelow: number;
  readonly above: number;
}

export interface Simulation {
  readonly sampleRate: number;
  readonly samples: number;
  readonly outputs: ReadonlyMap<string, OutputSeen>;
  readonly inputs: ReadonlyMap<string, Measured>;
  /** By `moduleId`, one for each of the kind's ends. */
  readonly ends: ReadonlyMap<string, readonly EndSeen[]>;
  /** By `moduleId`, where the kind has a hard limit of its own. */
  readonly cuts: ReadonlyMap<string, Cut>;
  /** Of every gate input that carries something. */
  readonly gates: ReadonlyMap<string, GateSeen>;
  readonly traces: ReadonlyMap<string, Float64Array>;
  readonly drives: ReadonlyMap<string, Float64Array>;
  /** By output socket; by input socket what arrives at a destination, all together. */
  readonly pictures: ReadonlyMap<string, Picture>;
}
