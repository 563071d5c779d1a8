import type { BenchReading, Diagnosis } from '@/core';
import { benchJob } from '@/ui/parts/workerJob';
import type { Job } from '@/ui/parts/workerJob';
import type { OpenSession } from './useSession';

/** The readings of a session that hold, as a diagnosis takes them. */
export const readingsOf = ({ standing }: OpenSession): BenchReading[] =>
  standing.map(({ at, quantity, value, unit, plusMinus, step, knobs }) => ({
    at,
    quantity,
    value,
    unit,
    knobs,
    ...(plusMinus !== undefined && { plusMinus }),
    ...(step !== undefined && { step }),
  }));

export const diagnoseSession = (open: OpenSession, onProgress: (share: number) => void): Job<Diagnosis> =>
  benchJob((worker) => worker.diagnose(open.at, readingsOf(open)), onProgress);
