/** What a library holds, for who wants to know whether a copy is whole. */
export interface Holdings {
  readonly patches: number;
  readonly racks: number;
  readonly recordings: number;
  readonly sessions: number;
  /** Photographs and recordings of sessions. */
  readonly files: number;
}

/** The library, and how long ago it was last backed up. */
export interface LibraryState {
  readonly folder: string;
  readonly bytes: number;
  readonly holdings: Holdings;
  /** ISO date of the last backup; null: there is none. */
  readonly lastBackup: string | null;
  /** Whole days since then, or since the library began. */
  readonly days: number;
  /** Saves since then. */
  readonly saves: number;
  /** A backup is overdue. */
  readonly due: boolean;
}

/** A backup that was restored, and the file in the library's folder that holds what was there before. */
export interface Restored {
  readonly holdings: Holdings;
  readonly aside: string;
}
