import type { Edit, Patch } from '../core';

/** What passes between the page and what plays on the sound device's thread. */

export interface ListenTo {
  readonly left: string;
  readonly right: string;
  readonly gain: number;
}

export interface LiveTrace {
  readonly id: string;
  readonly sampleRate: number;
  readonly volts: Float32Array;
}

export type ToLive =
  | {
      readonly do: 'play';
      readonly patch: Patch;
      readonly ears: ListenTo;
      readonly level: number;
      readonly traces: readonly LiveTrace[];
    }
  | {
      readonly do: 'edit';
      readonly edits: readonly Edit[];
      readonly ears: ListenTo;
      readonly number: number;
      /** A hand plays: what jumps then is meant. */
      readonly played: boolean;
      /** Goes over to the other side of a comparison, at this gain, dB. */
      readonly switchDb?: number;
    }
  | { readonly do: 'level'; readonly db: number }
  /** Makes what is heard as loud as what it is compared with, dB. */
  | { readonly do: 'match'; readonly db: number }
  /** How loud the ears are beside each other: -1 only the left one, 1 only the right one. */
  | { readonly do: 'balance'; readonly balance: number }
  /** A voltage that is heard as the pitch of a soft tone, or none. */
  | { readonly do: 'tone'; readonly socket: string | null }
  /** A stretch that is played over and over, seconds after t = 0, or none. */
  | { readonly do: 'loop'; readonly span: readonly [from: number, to: number] | null }
  /** Ticks that begin at these samples. */
  | { readonly do: 'count'; readonly at: readonly number[] }
  /** Sockets whose ranges are told, and those whose traces are. */
  | { readonly do: 'watch'; readonly sockets: readonly string[]; readonly traces: readonly string[] }
  /** Hands over the samples as heard, for a number of samples from now on. */
  | { readonly do: 'tap'; readonly samples: number; readonly sockets: readonly string[] }
  | { readonly do: 'stop' };

/** Pairs of least and greatest that a report tells of each trace. */
export const TRACE_PAIRS = 4;

/** What is told some sixty times a second. */
export interface LiveReport {
  readonly is: 'report';
  /** Samples since the start, and of how many a second. */
  readonly samples: number;
  readonly sampleRate: number;
  /** Share of the time that there is which the patch takes, 0..1. */
  readonly load: number;
  /** How often sound came too late. */
  readonly dropouts: number;
  readonly peak: number;
  readonly rms: number;
  readonly reduction: number;
  readonly heldBack: number;
  /** The last edit that is heard. */
  readonly number: number;
  /** Edits that began to be heard since the last report: their numbers, and the sample at which each began. */
  readonly begun: readonly (readonly [number: number, sample: number])[];
  /** Of each watched socket: now, least, greatest; volts. */
  readonly watched: Float32Array;
  /** Of each traced socket `TRACE_PAIRS` pairs of least and greatest; volts. */
  readonly traced: Float32Array;
}

export type FromLive =
  | LiveReport
  | {
      readonly is: 'tapped';
      readonly left: Float32Array;
      readonly right: Float32Array;
      readonly volts: readonly Float64Array[];
    }
  | { readonly is: 'stopped' }
  | { readonly is: 'failed'; readonly message: string };
