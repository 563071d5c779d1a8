import type { Edit } from '../edit/edit';

/** Something that a player sets by ear or by sums, done in one edit. */
export interface Helper {
  readonly key: 'rest to full' | 'just opens' | 'stays open' | 'nothing clips' | 'locked' | 'accents';
  readonly title: string;
  /** What it does and why, in a line or two. */
  readonly says: string;
  /** Empty where it cannot be done, which is what it then says. */
  readonly edits: readonly Edit[];
}

export interface HelperOptions {
  /** The gain that an amplifier may fall to and still be heard, dB. */
  readonly openDb: number;
  /** Where a locked oscillator begins, share of a cycle. */
  readonly phase: number;
  /** The steps at which a gate shall come, 0 first; null: those above the middle. */
  readonly accents?: readonly number[] | null;
}
