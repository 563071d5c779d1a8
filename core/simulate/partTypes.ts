import type { GraphModule } from '../graph/graph';
import type { Kernel } from '../kinds/kind';
import type { Pass } from '../native/kernels';
import type { Slot } from './kernels';
import type { Memory } from './memory';
import type { Figures } from './figures';
import type { DriveStats, GateStats, Picture, Stats, Tail } from './stats';

/** What a run needs of one module: its buffers, its kernel, and who counts. */
export interface Part {
  readonly module: GraphModule;
  readonly inputs: readonly Float64Array[];
  readonly outputs: readonly Float64Array[];
  kernel: Kernel;
  /** Of a module that runs: where its kernel stands, and what it remembers. */
  place?: Slot;
  readonly memory?: Memory;
  readonly seen: readonly (Seen | null)[];
  /** Makes the outputs that are another's negative. */
  readonly negated: readonly Pass[];
  readonly drives: readonly {
    readonly buffer: Float64Array;
    readonly stats: DriveStats;
    readonly picture: Picture | null;
    /** Where hands turn the knobs that its figure hangs on. */
    readonly figures: Figures | null;
    readonly arrives: Tail;
    readonly arrivingFigures: Figures | null;
  }[];
  /** Works out the drives and what the kind itself cuts. */
  readonly runDrives: Kernel;
  /** What the kind itself cuts flat, counted beyond its level. */
  readonly limits: readonly { readonly buffer: Float64Array; readonly stats: DriveStats }[];
  readonly gates: readonly GateWatch[];
  readonly delayed: readonly Delayed[];
}

export interface GateWatch {
  readonly socket: string;
  readonly buffer: Float64Array;
  readonly stats: GateStats;
}

export interface Seen {
  readonly socket: string;
  readonly stats: Stats;
  readonly settled: Tail;
  readonly arrives: Tail;
  /** What its own gain and offset are off by, where a tolerance is asked for. */
  readonly err?: (from: number, to: number) => void;
  /** Sure to stay inside the rails. */
  readonly inside: boolean;
  factor: number;
  readonly picture: Picture | null;
  /** Holds it at the rails, then leaves of it what its load does. */
  readonly hold: (from: number, to: number, factor: number) => void;
  /** Samples beyond the lower and the upper rail. */
  readonly clipped: Float64Array;
}

/** A cable that carries the previous sample. */
export interface Delayed {
  readonly socket: string;
  readonly source: Float64Array;
  readonly buffer: Float64Array;
  readonly stats: Stats;
  last: number;
}
