import type { Patch, Target } from '../document/types';
import { solve as solveInTime } from '../solve/solve';
import type { SolveAnswer, SolveOptions } from '../solve/types';

/** No machine is so busy that a question takes as long, seconds. */
const SECONDS = 120;

/** The solver, ended by its looks alone: how busy the machine is changes no answer. */
export const solve = (
  patch: Patch,
  options: SolveOptions = {},
  targets: readonly Target[] = patch.targets,
): SolveAnswer => solveInTime(patch, { seconds: SECONDS, ...options }, targets);
