import type { Move } from './take';

/** A knob that rests for longer than this begins a new move, seconds. */
const REST = 0.03;

/** A knob's moves in runs: each one gesture of a hand, with a rest before it. */
function runsOf<M extends Pick<Move, 'begins'>>(moves: readonly M[]): M[][] {
  const runs: M[][] = [];
  moves.forEach((m, i) => {
    const before = moves[i - 1];
    if (before && m.begins - before.begins <= REST) (runs.at(-1) as M[]).push(m);
    else runs.push([m]);
  });
  return runs;
}

/**
 * A knob's moves, each run of them shifted as a whole to the nearest multiple of `grid` seconds. What goes back to where
 * the run before began is its release, and keeps its distance to it: a gate keeps its length.
 */
export function quantised<M extends Pick<Move, 'begins' | 'from' | 'value'>>(
  moves: readonly M[],
  grid: number,
): readonly M[] {
  let [rest, shift] = [NaN, 0];
  const shifted = runsOf(moves).map((run) => {
    const [first, last] = [run[0] as M, run.at(-1) as M];
    if (last.value === rest) rest = NaN;
    else {
      rest = first.from;
      shift = Math.round(first.begins / grid) * grid - first.begins;
    }
    return run.map((m) => ({ ...m, begins: Math.max(0, m.begins + shift) }));
  });
  // A run that would come before the one ahead of it begins where that has begun.
  let reached = 0;
  return shifted.flat().map((m) => {
    reached = Math.max(reached, m.begins);
    return { ...m, begins: reached };
  });
}
