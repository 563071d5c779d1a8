import type { Json } from '../core';
import type { KeptFor } from './requests';

/** What passes between page and server about patches. */

export type Document = { readonly [key: string]: Json };

/** What the patches list shows of a patch. */
export interface Summary {
  readonly modules: number;
  readonly notes: string;
  /** What the ends' figures are: from before, the guaranteed range; those are made anew. */
  readonly figures: 'arrives';
  readonly findings: { readonly error: number; readonly warning: number; readonly note: number };
  readonly ends: readonly {
    readonly at: string;
    readonly label: string;
    readonly low: number | null;
    readonly high: number | null;
    readonly unit: string;
  }[];
  /** How many targets there are, and how many are met. */
  readonly wanted: { readonly count: number; readonly met: number };
  /** The channels that its modules sit on. */
  readonly uses: readonly string[];
  /** The destination that a patch opens with; null without one. */
  readonly shown: string | null;
  /** Of its path: name, bound and seen of each stage, volts. */
  readonly strip: readonly {
    readonly label: string;
    readonly bound: readonly [number, number];
    readonly seen: readonly [number, number];
  }[];
}

/** What the page of a patch shows before the patch itself is there. */
export interface FirstPaint extends Pick<Summary, 'ends' | 'shown' | 'strip'> {
  readonly name: string;
}

/** A patch without its body. */
export interface PatchHead {
  readonly id: string;
  readonly revision: number;
  readonly tags: readonly string[];
  readonly updatedAt: string;
  readonly deletedAt: string | null;
}

/** A recording that nothing plays. */
export interface UnusedAsset {
  readonly id: string;
  readonly name: string;
  readonly bytes: number;
}

export interface StoredPatch extends PatchHead {
  readonly patch: Document;
  /** The key of the save that made this revision: a page whose answer was lost knows its own by it. */
  readonly saveKey: string | null;
}

export interface ListedPatch extends PatchHead {
  readonly name: string;
  /** Null while it is being made. */
  readonly summary: Summary | null;
  /** Why there is none, where it could not be made. */
  readonly fault: string | null;
}

/** One saved version of a patch, as the history lists it. */
export interface SavedVersion {
  readonly revision: number;
  readonly name: string;
  readonly savedAt: string;
  /** Why it is kept for ever, or null. */
  readonly keptFor: KeptFor | null;
  /** What was changed since the version before, in the words of the undo list; empty where nobody said. */
  readonly changes: readonly string[];
}

/** What the details of a conflict hold. */
export interface ConflictDetails {
  readonly theirs: StoredPatch;
  readonly yours: { readonly baseRevision: number; readonly patch: Document };
}

/** The one shape of every refusal. */
export interface ErrorAnswer {
  readonly error: { readonly code: string; readonly message: string; readonly details: unknown };
}
