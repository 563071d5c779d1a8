import type { Range } from '../law/lin';

/** How far a setting is from what a target wants. */
export interface Miss {
  /** In drive volts; for `duty`, `fall`, `like` in their own figure. */
  readonly error: number;
  /** The span that a share is allowed of, volts. */
  readonly span: number;
  /** The bound of the drive, volts. */
  readonly reached: Range;
  /** What a step towards it can go by: 0 where it is met, and straight where the drives are. */
  readonly parts: readonly Part[];
  /** What is left over where several settings meet it: the more the better. */
  readonly margin?: number;
}

export interface Part {
  /** The same part has the same name at other settings. */
  readonly name: string;
  readonly volts: number;
}
