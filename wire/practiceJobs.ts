import type { BenchReading, Fault } from '../core';
import type { Answer, Exercise, Level, Mark } from '../core/practice';

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
  mark(of: Pick<Exercise, 'skill' | 'level' | 'seed'>, answer: Answer): Promise<Mark>;
  /** What is read at a socket of the simulated rack of an exercise. */
  read(of: Pick<Exercise, 'skill' | 'level' | 'seed'>, at: string): Promise<readonly BenchReading[]>;
}
