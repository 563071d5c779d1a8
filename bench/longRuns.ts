import { execFileSync } from 'node:child_process';
import { existsSync, readFileSync, writeFileSync } from 'node:fs';
import { writeSection } from './section';

/** Every long run that was kept, so that what many sittings came to can be summed. */
const FILE = 'bench/longRuns.json';

/** What long runs are of, and how many cases are wanted. */
const CLAIMS = {
  patches: { says: 'Random patches: seen within bound, all finite, printed and read the same', goal: 1_000_000 },
  edits: { says: 'Sequences of edits: undone, and bounds kept as if worked out anew', goal: 100_000 },
  live: { says: 'Live runs through edits: within what is known, and as from a fresh engine', goal: 20_000 },
  promises: { says: 'Random patches whose fixes are applied and asked again', goal: 0 },
  documents: { says: 'Changed documents: read, or properly refused', goal: 0 },
  heavy: { says: 'Documents as heavy as their shape can be', goal: 0 },
  kills: {
    says: 'Kills of the server over saves, imports, backups, sessions and its start: all that it acknowledged is there',
    goal: 1000,
  },
  hostile: { says: 'Hostile requests: none answered as a fault of the server', goal: 100_000 },
  mixed: { says: 'Mixed requests, for the server’s memory', goal: 0 },
} as const;
export type Claim = keyof typeof CLAIMS;

export const claimOf = (claim: Claim): string => CLAIMS[claim].says;

export interface LongRun {
  readonly claim: Claim;
  readonly day: string;
  readonly commit: string;
  /** Its first seed; the others follow. */
  readonly from: number;
  readonly cases: number;
  readonly faults: number;
  /** What else it came to. */
  readonly note?: string;
}

/** Seeds that runs cover, as ranges in their order; those that join are one. */
function ranges(runs: readonly LongRun[]): string {
  const joined: [number, number][] = [];
  for (const { from, cases } of runs.toSorted((a, b) => a.from - b.from)) {
    const last = joined.at(-1);
    if (last && from <= last[1]) last[1] = Math.max(last[1], from + cases);
    else joined.push([from, from + cases]);
  }
  return joined.map(([from, to]) => `${from} to ${to - 1}`).join('; ');
}

const sum = (xs: readonly number[]): number => xs.reduce((a, b) => a + b, 0);

function rowOf(claim: Claim, runs: readonly LongRun[]): string {
  const notes = runs.flatMap((r) => (r.note ? [`${r.note} (${r.commit})`] : []));
  const { says, goal } = CLAIMS[claim];
  const days = [...new Set(runs.map((r) => r.day))].toSorted();
  const cells = [
    says,
    String(sum(runs.map((r) => r.cases))),
    goal > 0 ? String(goal) : '',
    String(sum(runs.map((r) => r.faults))),
    ranges(runs),
    days.join(', '),
    [...new Set(notes)].join('; '),
  ];
  return `| ${cells.join(' | ')} |`;
}

/** Adds runs to those that were kept, and writes what all of them came to into docs/figures.md. */
export function keepRuns(runs: readonly Omit<LongRun, 'day' | 'commit'>[]): void {
  const commit = execFileSync('git', ['rev-parse', '--short', 'HEAD'], { encoding: 'utf8' }).trim();
  const day = new Date().toISOString().slice(0, 10);
  const before = existsSync(FILE) ? (JSON.parse(readFileSync(FILE, 'utf8')) as LongRun[]) : [];
  const all = [...before, ...runs.filter((r) => r.cases > 0).map((r) => ({ ...r, day, commit }))];
  writeFileSync(FILE, `${JSON.stringify(all, null, 2)}\n`);
  writeSection('runs', 'Long runs', [
    '`npm run fuzz -- --keep`, `npm run crash -- --keep`: all runs that were kept, each with the commit of its day in `bench/longRuns.json`.',
    '',
    '| claim | cases | goal | faults | seeds | days | notes |',
    '| --- | --- | --- | --- | --- | --- | --- |',
    ...(Object.keys(CLAIMS) as Claim[]).flatMap((claim) => {
      const of = all.filter((r) => r.claim === claim);
      return of.length > 0 ? [rowOf(claim, of)] : [];
    }),
  ]);
}
