import type { BenchReading, Fault, ReadQuantity, Verdict } from '../core';
import type { Document } from './patches';
import type { Ticks } from './requests';

/** What passes between page and server about sessions at the rack. */

/** A rack that is simulated: which one, and what is wrong with it; a surprise is not shown until it is found. */
export interface Simulated {
  readonly seed: number;
  readonly faults: readonly Fault[];
  readonly surprise: boolean;
}

export interface SessionHead {
  readonly id: string;
  readonly patchId: string;
  readonly patch: string;
  readonly rackId: string;
  readonly rack: string;
  readonly started: string;
  readonly ended: string | null;
  readonly deletedAt: string | null;
  readonly simulated: boolean;
  /** Which rack was simulated; null at a real one. */
  readonly seed: number | null;
  readonly readings: number;
  readonly wrong: number;
  readonly files: number;
}

export interface StoredReading extends Omit<BenchReading, 'unit'> {
  readonly id: number;
  readonly unit: string;
  readonly time: string;
  /** The reading that it takes the place of. */
  readonly corrects: number | null;
  readonly expected: number | null;
  readonly expectedPlusMinus: number | null;
  readonly verdict: Verdict | null;
}

export interface BenchFile {
  readonly id: string;
  readonly kind: 'photograph' | 'recording';
  readonly name: string;
  readonly type: string;
  readonly bytes: number;
  /** The socket that was recorded. */
  readonly at: string | null;
  readonly added: string;
  readonly deletedAt: string | null;
}

export interface StoredSession extends SessionHead {
  readonly revision: number;
  readonly document: Document;
  /** Which channel played which module. */
  readonly assignment: readonly { readonly module: string; readonly rack: string }[];
  readonly notes: string;
  readonly ticks: Ticks;
  readonly steps: number;
  readonly list: readonly StoredReading[];
  readonly attached: readonly BenchFile[];
  readonly rackIsSimulated: Simulated | null;
}

/** A reading at one socket over the sessions of a patch. */
export interface TrendPoint {
  readonly session: string;
  readonly started: string;
  readonly quantity: ReadQuantity;
  readonly value: number;
  readonly unit: string;
  readonly expected: number | null;
  readonly verdict: Verdict | null;
}
