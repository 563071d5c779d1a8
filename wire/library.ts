/** What a library holds, for who wants to know whether a copy is whole. */
export interface Holdings {
  readonly patches: number;
  readonly racks: number;
  readonly recordings: number;
  readonly sessions: number;
  /** Photographs and recordings of sessions. */
  readonly files: number;
}

/** A library whose file is damaged: what could be read of it is open, and nothing is written. */
export interface Damage {
  /** What could be read. */
  readonly holdings: Holdings;
  /** Rows that could not, at most, by their tables. */
  readonly lost: Readonly<Record<string, number>>;
  /** Of the patches among them, those that came back as an earlier version. */
  readonly revived: number;
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
  /** Null: its file is sound, as far as it was read. */
  readonly damage: Damage | null;
}

/** A backup that was restored, and the file in the library's folder that holds what was there before. */
export interface Restored {
  readonly holdings: Holdings;
  readonly aside: string;
}
