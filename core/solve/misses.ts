import type { Patch } from '../document/types';
import { settledAs } from './bench';
import type { BenchOptions } from './bench';
import { missesIn } from './met';
import type { Missed } from './met';

/** Whether each target of a patch as it stands is met, and by how much it is missed. */
export const missesOf = (patch: Patch, options: BenchOptions = {}): Missed[] =>
  missesIn(patch.targets, settledAs(patch, options));
