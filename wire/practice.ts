import type { PracticeAnswer } from '../core/practice';
import type { Document } from './patches';

/** What passes between page and server about practice. */
export interface StoredPractice {
  readonly answers: readonly PracticeAnswer[];
  /** How many were removed, and can be restored. */
  readonly removed: number;
}

/** A walkthrough of one's own, as its document. */
export interface StoredWalkthrough {
  readonly id: string;
  readonly revision: number;
  readonly updatedAt: string;
  readonly deletedAt: string | null;
  readonly walkthrough: Document;
}
