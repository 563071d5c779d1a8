/** Which of a patch's saved versions are kept. */

export interface Version {
  readonly revision: number;
  readonly savedAt: Date;
  /** Why it is kept for ever: it was named, restored, or something was started from it. */
  readonly keptFor: string | null;
}

const HOUR = 3_600_000;
const DAY = 24 * HOUR;
/** Versions older than a day are kept one an hour, those older than this one a day. */
const HOURLY_FOR = 7 * DAY;

/**
 * The versions to let go of: all of the last day stay, then the last of each hour for a week, then the last of each
 * day, and for ever the first, the present one, and what was kept on purpose.
 */
export function outgrown(versions: readonly Version[], now: Date): number[] {
  const sorted = [...versions].sort((a, b) => b.revision - a.revision);
  const [newest] = sorted;
  const oldest = sorted.at(-1);
  const taken = new Set<string>();
  return sorted.flatMap((v) => {
    const at = v.savedAt.getTime();
    const age = now.getTime() - at;
    if (age < DAY) return [];
    const slot = age < HOURLY_FOR ? `hour ${Math.floor(at / HOUR)}` : `day ${Math.floor(at / DAY)}`;
    const later = taken.has(slot);
    taken.add(slot);
    return later && v !== newest && v !== oldest && v.keptFor === null ? [v.revision] : [];
  });
}
