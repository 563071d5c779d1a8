import type { BenchReading, Fault, Patch } from '../core';
import type { Answer, Exercise, FigureAt, FigureValue, KnownSlip, Level, Mark, PatchQuestion } from '../core/practice';

/** What is worked out beside the page of practice. */

export interface ShownExercise {
  readonly exercise: Exercise;
  /** What every stage does, without what it comes to. */
  readonly given: readonly { readonly module: string; readonly text: string }[];
  /** What may be wrong, of an exercise about a fault. */
  readonly faults: readonly { readonly text: string; readonly fault: Fault }[];
}

export interface PracticeWorker {
  exercise(skill: string, level: Level, seed: number): Promise<ShownExercise>;
  mark(
    of: Pick<Exercise, 'skill' | 'level' | 'seed'>,
    answer: Answer,
  ): Promise<{
    readonly mark: Mark;
    /** What known mistakes would have given. */
    readonly slips: readonly KnownSlip[];
  }>;
  /** A worked example of a skill, with its answer: no exercise has its seed. */
  example(skill: string, level: Level): Promise<{ readonly shown: ShownExercise; readonly mark: Mark }>;
  /** What a figure of a patch comes to; null where there is none at that place. */
  figure(patch: Patch, at: FigureAt): Promise<FigureValue | null>;
  /** Begins to ask about a patch of one’s own. */
  own(patch: Patch): Promise<{
    readonly questions: readonly PatchQuestion[];
    readonly given: ShownExercise['given'];
  }>;
  markOwn(index: number, answer: Answer): Promise<Mark>;
  /** What is read at a socket of the simulated rack of an exercise. */
  read(of: Pick<Exercise, 'skill' | 'level' | 'seed'>, at: string): Promise<readonly BenchReading[]>;
}
