import type { Candidate } from './candidates';

/** How often a candidate may stand in a chain: as many channels as there are, or as many as one likes. */
const copies = ({ places }: Candidate): number => places?.length ?? Infinity;

/** Beyond two stages only what reaches furthest is put in a row: everything else was tried in shorter ones. */
const LONG = 3;

/** Chains of a length, each of the stages that are there; the plainest first. */
export function* sequencesOf(
  candidates: readonly Candidate[],
  length: number,
  chain: readonly Candidate[] = [],
): Generator<readonly Candidate[]> {
  if (chain.length === length) return yield chain;
  const open = length >= LONG ? candidates.slice(0, LONG) : candidates;
  for (const candidate of open) {
    if (chain.filter((c) => c === candidate).length >= copies(candidate)) continue;
    yield* sequencesOf(candidates, length, [...chain, candidate]);
  }
}
