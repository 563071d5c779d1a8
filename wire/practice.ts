import type { PracticeAnswer } from '../core/practice';

/** What passes between page and server about practice. */
export interface StoredPractice {
  readonly answers: readonly PracticeAnswer[];
  /** How many were removed, and can be restored. */
  readonly removed: number;
}
