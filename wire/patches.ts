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

/** Whether a patch can be patched with a rack. */
export interface RackFit {
  /** What has no channel. */
  readonly short: readonly MissingModule[];
  readonly standIns: number;
}

/** A module of a patch that a rack has no channel for: its name, and what it is. */
export interface MissingModule {
  readonly name: string;
  readonly kind: string;
}

/** A row of the patches list. */
export interface PatchListing extends ListedPatch {
  /** With the rack that was asked about; null where none was, or while it is looked at. */
  readonly fit: RackFit | null;
}

/** Some rows of the patches that were looked for. */
export interface FoundPatches {
  readonly patches: readonly PatchListing[];
  /** How many there are in all. */
  readonly total: number;
  /** How many may yet be among them: not looked at yet for what was asked. */
  readonly pending: number;
}

/** What is known of all patches together. */
export interface PatchesAbout {
  readonly count: number;
  /** How many come from the demo theatre. */
  readonly demo: number;
  /** In use, each once. */
  readonly tags: readonly string[];
  /** Kinds of modules in use, by id and title. */
  readonly kinds: readonly (readonly [string, string])[];
}

/** Which patches say that they use a channel. */
export interface ChannelUse {
  readonly channel: string;
  /** The last few that were changed. */
  readonly names: readonly string[];
  readonly more: number;
}

/** Several patches against a rack. */
export interface RackCheck {
  readonly fitting: number;
  /** Not looked at yet. */
  readonly pending: number;
  /** Those that want something, the one that wants least first. */
  readonly short: readonly { readonly id: string; readonly name: string; readonly missing: readonly MissingModule[] }[];
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
