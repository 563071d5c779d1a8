import { recordingsOf, START_DB } from '@/core';
import type { Patch } from '@/core';
import { api } from '@/ui/parts/api';
import type { LiveReport, LiveTrace } from '@/wire/live';
import { USUAL } from './listened';
import type { Recorded } from './take';
import type { MeterShown } from './meterHold';
import type { Phase } from './transport';

/** What is compared with the patch as it is. */
export interface Other {
  readonly name: string;
  readonly patch: Patch;
  /** Root mean square of the patch and of this, of full scale; null while it is worked out. */
  readonly match: { readonly here: number; readonly there: number } | null;
}

/** Whether an edit changes more than words, pins and the like. */
export const isHeardOtherwise = (before: Patch, after: Patch): boolean =>
  (['modules', 'cables', 'normals', 'hands', 'bypassed', 'settings'] as const).some((k) => before[k] !== after[k]);

export interface LiveState {
  readonly phase: Phase;
  readonly fault: string | null;
  /** Listening level, dB. */
  readonly level: number;
  readonly choice: string;
  /** What a test voice does, while one is heard. */
  readonly voice: string | null;
  readonly report: LiveReport | null;
  /** How loud it is, nothing lost between two looks. */
  readonly meter: MeterShown | null;
  /** It took nearly all the time that there is. */
  readonly heavy: boolean;
  readonly halfRate: boolean;
  /** Plays only what the ears hang on. */
  readonly alone: boolean;
  /** Sockets that were seen beyond their bound: there must be none. */
  readonly beyond: readonly string[];
  readonly other: Other | null;
  readonly side: 'here' | 'there';
  readonly matched: boolean;
  readonly recording: boolean;
  /** The beats before a recording begins are being counted. */
  readonly counting: boolean;
  /** How many they are. */
  readonly countIn: number;
  /** What was recorded last, until it is kept or dropped. */
  readonly take: Recorded | null;
}

export const start: LiveState = {
  phase: 'idle',
  fault: null,
  level: START_DB,
  choice: USUAL,
  voice: null,
  report: null,
  meter: null,
  heavy: false,
  halfRate: false,
  alone: false,
  beyond: [],
  other: null,
  side: 'here',
  matched: true,
  recording: false,
  counting: false,
  countIn: 0,
  take: null,
};

/** The recordings that a patch plays, as far as they can be had. */
export async function tracesOf(patch: Patch): Promise<LiveTrace[]> {
  const found = await Promise.allSettled(recordingsOf(patch).map((id) => api.getAsset(id)));
  return found.flatMap((f) => (f.status === 'fulfilled' ? [f.value] : []));
}

/** How much one side is turned down so that both are equally loud, dB. */
export function matchFor({ other, side, matched }: Pick<LiveState, 'other' | 'side' | 'matched'>): number {
  const match = other?.match;
  if (!matched || !match || match.here <= 0 || match.there <= 0) return 0;
  const db = 20 * Math.log10(match.there / match.here);
  return side === 'here' ? Math.min(0, db) : Math.min(0, -db);
}
