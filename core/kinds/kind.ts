import type { Laws } from '../law/builder';
import type { Affine } from '../law/affine';
import type { Kernels } from '../native/kernels';
import type { ParamSpec, ParamSpecs, ParamValues, Values } from './params';
import { usualSocketLabel } from './sockets';
import type { InputSpec, Sockets } from './sockets';
import type {
  AmplifierSpec,
  ClipSpec,
  EndSpec,
  FaderSpec,
  Feedthrough,
  GainSpec,
  LiftSpec,
  Passive,
  StageSpec,
} from './traits';

export { control, gate, knob, signal } from './sockets';
export type { InputSpec, Loading, Sockets } from './sockets';
export type { EndSpec, GainSpec } from './traits';

/** Computes samples `from..to-1` of the block's buffers; index 0 of a buffer is sample `k0`. */
export type Kernel = (from: number, to: number, k0: number) => void;

/** An imported trace by its id; null where it is missing. */
export type AssetLookup = (
  id: string,
) => { readonly sampleRate: number; readonly volts: Float32Array | Float64Array } | null;

export interface Wiring {
  readonly sampleRate: number;
  /** Volts; a trace in volts for each imported recording. */
  asset: AssetLookup;
  /** Differs for each module and each patch seed. */
  readonly seed: number;
  readonly railVolts: number;
  input(name: string): Float64Array;
  /** The input's voltage where it never changes, else null. */
  steady(name: string): number | null;
  connected(name: string): boolean;
  output(name: string): Float64Array;
  /** A buffer of the block's size for a kernel's own use. */
  scratch(): Float64Array;
  /** A few numbers that the compiled loops keep from block to block, under a name of the kind's own. */
  numbers(name: string, count: number): Float64Array;
  /**
   * What a kernel remembers from sample to sample, under a name of the kind's own: made once, and handed on when the
   * kernel is made anew because a knob was turned. Nothing else of a kernel may outlast a block.
   */
  keep<T extends object>(name: string, make: () => T): T;
  /** The compiled loops, over these buffers. */
  readonly kernels: Kernels;
  /** Whether an output is read; one that is not may be skipped. */
  wanted(name: string): boolean;
  /** Where a kind that `detects` writes 1 while its detector is high, else 0. */
  readonly detected: Float64Array;
}

/** What it is called, and where it stands: for people. */
interface Described<P> {
  readonly name: string;
  readonly title: string;
  /** What it does, in one line. */
  readonly does: string;
  /** What else people type to find it. */
  readonly aliases?: readonly string[];
  /** Its law, in the notation of docs. */
  readonly formula: string;
  readonly category: 'source' | 'between' | 'end';
  /** Its settings in a few words, for a label beside its name. */
  brief(p: P): string;
  /** Where it stands among the ends that are offered, the first being 1; left out: among the others. */
  readonly offered?: number;
}

/** The panel facet: its knobs beside their own limits, for the parser, the editor, the solver. */
interface PanelFacet<P> {
  /** What it is set to when it is put into the editor, where that is not its defaults: so that something comes out. */
  readonly starts?: ParamValues;
  /** The settings with which it gives `sum` minus what it gives now; null where its knobs do not reach that far. */
  mirrored?(p: P, sum: number): Partial<P> | null;
  /** Pairs of parameters of which the first must lie below the second. */
  readonly below?: readonly (readonly [string, string])[];
  /** A rule between parameters that no single limit can say. */
  check?(p: P): { readonly param: string; readonly message: string } | null;
  /** The parameters which, all multiplied by one number, multiply the output by it. */
  scaledBy?(p: P): readonly string[];
  /** Knobs that its outputs are exactly linear in, each by itself, whatever comes in. Left out: none. */
  linear?(p: P): readonly string[];
  /** Knobs that its law and its drives ask for as voltages, so that they hold at every place of a hand's way. */
  readonly voltages?: readonly string[];
  /**
   * The settings of a knob at which an output can be at its highest or lowest between the ends of a hand's way, all other
   * knobs being still. Left out: unknown.
   */
  turnsAt?(b: Laws, p: P, io: Sockets): { readonly param: string; readonly places: readonly number[] };
  /** Knobs that make it howl by themselves: turned down before it is plugged. */
  readonly howls?: readonly string[];
  /** Follows the patch's tempo: unless `beats` is null, one cycle lasts that many beats and sets the rate `sets`, Hz. */
  readonly tempo?: { readonly beats: keyof P & string; readonly sets: keyof P & string };
  /** The list of points that a hand draws or records. */
  readonly drawn?: string;
  /** Stands where a hand leaves it: a fader, a wheel, a pedal. */
  readonly fader?: FaderSpec<P>;
  /** The parameter that names a recording. */
  readonly plays?: string;
}

/** The source facet: how it moves by itself, for bounds and repeats. */
interface SourceFacet<P> {
  /** Runs by itself or draws: two of the same settings and inputs need not be the same voltage. Left out: never. */
  free?(p: P, connected: (input: string) => boolean): boolean;
  /** How often it repeats, nominally, while nothing moves it. Left out: not by itself. */
  hertz?(p: P): number;
  /** Moves by itself, without a hand, a gate or a clock. Left out: never. */
  runs?(p: P): boolean;
  /** Makes up its voltages by chance (seeded). Left out: never. */
  draws?(p: P): boolean;
  /** Seconds after which it repeats of itself, as an exact fraction of decimals, or null if it does not. */
  period?(p: P, around: Surroundings): Period;
  /** The input that begins its cycle, and the knob that says where in it; left out: nothing does. */
  readonly begins?: { readonly input: string; readonly at: string };
  /** How many periods of an input one period of the output takes. */
  repeatsTimes?(p: P, input: string): number;
  /** A sine at an output: by its own rate, or by what one of its ends reads, Hz. */
  sine?(p: P, output: string): 'rate' | { readonly end: string } | null;
  /** Puts out notes, one volt an octave; a plain voltage may by its name. */
  notes?(output: string, name: string): boolean;
  /** Puts out levels of its own: its inputs decide when, but their voltages do not pass. Left out: never. */
  remakes?(p: P): boolean;
}

/** The sound facet: what it has to do with hearing, for the audio rate, listening, cautions. */
interface SoundFacet<P> {
  /** Needs the audio sample rate. */
  readonly audioRate?: boolean;
  /** Puts out sound. */
  readonly audible?: boolean;
  /** What it puts out is slow, whatever comes in. */
  readonly smooths?: boolean;
  /** Leads out of the rack, to the ears; and whether it stops constant voltage on the way. */
  readonly outlet?: { stopsDc(p: P): boolean };
  /** Brings in what comes from outside the rack. */
  readonly inlet?: boolean;
  /** Its own way back: the amount, the input that adds to it, volts for the whole of it, and where it is held. */
  readonly feedback?: {
    readonly param: string;
    readonly input: string;
    readonly fullVolts: number;
    readonly most: number;
  };
  /** Inputs of a product that come through beside it, for peaks of its inputs. */
  feedthrough?(p: P, peak: (input: string) => number): readonly Feedthrough[];
  /** The gain of a small signal from an input at its loudest frequency; null: as its law says. */
  loudest?(p: P, input: string, output: string): number | null;
  /** What each of its outputs adds by itself, microvolts RMS. Left out: as most do. */
  readonly noiseMicrovolts?: number;
  /** Inputs whose constant part is lost. */
  acCoupled?(p: P): readonly string[];
}

/** The timing facet: gates and contours, for traces, findings, the live engine. */
interface TimingFacet<P> {
  /** The signal input that is looked at for crossings, and the voltage it must reach against `threshold`. */
  readonly detects?: {
    readonly input: string;
    readonly threshold: string;
    gateState(b: Laws, p: P, io: Sockets): GateState;
  };
  /** The gate input at which it takes a new voltage and holds it. */
  readonly holds?: string;
  /** Stages that it goes through in times of its own. */
  stages?(p: P): readonly StageSpec[];
  /** The gate that begins its stages, and the voltage that an output rests at before. */
  readonly contour?: {
    readonly gate: string;
    rests(p: P, output: string): number;
    /** The knobs that bend its stages. */
    readonly bends: readonly string[];
  };
  /** The signal input that it follows in time: a slow signal passes as it is. */
  readonly lags?: string;
  /** Outputs that are gates: high or low, whatever their levels are. */
  readonly gates?: readonly string[];
  /** Whether an output that is no gate has two levels alone all the same. Left out: none has. */
  twoLevels?(p: P, output: string): boolean;
}

/** The stage facet: what it does to a signal that passes, for findings and strips. */
interface StageFacet<P> {
  readonly gains?: readonly GainSpec<P>[];
  clips?(b: Laws, p: P, io: Sockets): readonly ClipSpec[];
  /** The level at which it clips by itself, volts; null where a setting keeps it from clipping. */
  clipLevel?(p: P): number | null;
  /** It amplifies by a control voltage: its first end is how far it opens, from shut to full. */
  readonly amplifier?: AmplifierSpec<P>;
  /** A knob that offsets all that comes out. Left out: none. */
  readonly lift?: LiftSpec<P>;
  /** Takes what is below 0 V for 0 V. */
  positiveOnly?(p: P): boolean;
  /** Inverts its signal, whatever its amounts are. */
  flips?(p: P): boolean;
  /** Clipping is what it is for. */
  readonly shapes?: boolean;
}

/** The electrical facet: what it is by wire, and in a rack, for loading, assigning, the sheet. */
interface ElectricalFacet<P> {
  /** What it is while it has no power of its own. */
  passive?(p: P): Passive | null;
  /** What gives it power, in words and as a setting. */
  readonly powered?: { readonly says: string; readonly param: string; readonly value: string };
  /** Ties outputs together by wire. */
  readonly joins?: boolean;
  /** Takes no place in a rack, or only where the rack has one. Left out: always takes one. */
  readonly unracked?: 'always' | 'where none is';
}

/** The scale facet: what differs from one real module to another, beside gain, offset and pointers. */
interface ScaleFacet {
  /** Times that are all longer by one factor. */
  readonly times?: readonly string[];
  /** Rates that are all higher by one factor. */
  readonly rates?: readonly string[];
  /** The voltage at which its control is fully open. */
  readonly full?: string;
  /** It is tuned in octaves. */
  readonly octaves?: true;
}

/** Its law and its samples: for bounds and simulation. */
interface Computed<P> {
  inputs(p: P): readonly InputSpec[];
  outputs(p: P): readonly string[];
  /** Its outputs: exactly, or (with memory) as symbols in the hull that its law guarantees. */
  law(b: Laws, p: P, io: Sockets): Readonly<Record<string, Affine>>;
  /** Whether its output depends on what was before. */
  memory(p: P, connected: (input: string) => boolean): boolean;
  /** Outputs that are another one's negative; a kernel leaves them out. */
  readonly negated?: Readonly<Record<string, string>>;
  /** Its samples; left out where `law` says it all. */
  kernel?(p: P, wiring: Wiring): Kernel;
}

/** A kind: what it is called, its law, and the facets that it has. */
interface Shape<P> extends Described<P>, Computed<P> {
  readonly panel?: PanelFacet<P>;
  readonly source?: SourceFacet<P>;
  readonly sound?: SoundFacet<P>;
  readonly timing?: TimingFacet<P>;
  readonly stage?: StageFacet<P>;
  readonly electrical?: ElectricalFacet<P>;
  readonly scale?: ScaleFacet;
  /** The destination facet: what its inputs are read as. */
  readonly ends?: readonly EndSpec<P>[];
}

/** What a detector can ever do: stay low, be high from the first sample on, or move. */
export type GateState = 'low' | 'high' | 'moves';

/** What a period hangs on beside the module's own settings. */
export interface Surroundings {
  /** The voltage of an input that can never change, else null. */
  steady(input: string): number | null;
  connected(input: string): boolean;
  /** The patch's tempo. */
  readonly bpm: number;
}

/** `none`: not a source of movement. `never`: does not repeat. Otherwise seconds = over/under, from decimals. */
export type Period = 'none' | 'never' | { readonly over: readonly number[]; readonly under: readonly number[] };

/** What people call the parts of a kind: every parameter, its options, and sockets that have a name of their own. */
interface Words<S extends ParamSpecs> {
  readonly params: { readonly [K in keyof S]: string };
  /** A line on a parameter, for the editor and the docs. */
  readonly says?: { readonly [K in keyof S]?: string };
  readonly options?: { readonly [K in keyof S]?: Readonly<Record<string, string>> };
  readonly sockets?: Readonly<Record<string, string>>;
}

export interface KindOf<S extends ParamSpecs> extends Shape<Values<S>> {
  readonly params: S;
  readonly words: Words<S>;
}

export interface Kind extends Shape<ParamValues> {
  /** Each with its words. */
  readonly params: ParamSpecs;
  readonly words: Words<ParamSpecs>;
}

/** Declares a kind; inside it the parameters have their own types. */
export function kind<const S extends ParamSpecs>(spec: KindOf<S>): Kind {
  const { params: labels, says, options } = spec.words;
  const worded = Object.entries<ParamSpec>(spec.params).map(([name, param]) => {
    const line = says?.[name] ?? param.says;
    const labelled = options?.[name];
    return [
      name,
      {
        ...param,
        label: labels[name],
        ...(line !== undefined && { says: line }),
        ...(labelled && { optionLabels: labelled }),
      },
    ] as const;
  });
  return { ...spec, params: Object.fromEntries(worded) } as unknown as Kind;
}

/** The destinations of a kind, without their further readings. */
export const ownEnds = (of: Pick<Kind, 'ends'>): readonly EndSpec<ParamValues>[] =>
  (of.ends ?? []).filter((e) => e.further !== true);

/** What people call a socket. */
export const socketLabel = (of: Kind, name: string): string => of.words.sockets?.[name] ?? usualSocketLabel(name);

export const never = (): boolean => false;
export const always = (): boolean => true;
