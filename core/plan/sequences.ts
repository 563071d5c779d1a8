import type { RackPlace } from '../document/rackTypes';
import type { Candidate } from './candidates';

/**
 * A channel of its own for each stage of a chain, whatever modes the channels have: the first that leave one for all.
 *
 * @returns null for each stage without a rack; null alone where there are not enough channels.
 */
export function channelsFor(chain: readonly Candidate[]): (RackPlace | null)[] | null {
  const taken = new Set<string>();
  const seat = (i: number): (RackPlace | null)[] | null => {
    const stage = chain[i];
    if (!stage) return [];
    if (!stage.places) {
      const rest = seat(i + 1);
      return rest && [null, ...rest];
    }
    for (const place of stage.places) {
      if (taken.has(place.name)) continue;
      taken.add(place.name);
      const rest = seat(i + 1);
      if (rest) return [place, ...rest];
      taken.delete(place.name);
    }
    return null;
  };
  return seat(0);
}

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
    const longer = [...chain, candidate];
    if (channelsFor(longer)) yield* sequencesOf(candidates, length, longer);
  }
}
