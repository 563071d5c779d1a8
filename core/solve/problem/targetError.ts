import type { Range } from '../../law/affine';

/** How far a setting is from what a target asks for. */
export interface TargetError {
  /** In drive volts; for `duty`, `fall`, `like` in their own figure. */
  readonly error: number;
  /** The span that a share is allowed of, volts. */
  readonly span: number;
  /** What the drive reaches, volts: what the reading shows, hands included. */
  readonly reached: Range;
  /** What a step towards it can go by: 0 where it is met, and straight where the drives are. */
  readonly residuals: readonly Residual[];
  /** What is left over where several settings meet it: the more the better. */
  readonly margin?: number;
}

export interface Residual {
  /** The same residual has the same name at other settings. */
  readonly name: string;
  readonly volts: number;
  /** It falls short of what every target of its kind needs, and no share is allowed of it. */
  readonly required?: true;
}

export const residual = (name: string, volts: number): Residual => ({ name, volts });

/** A target whose socket is not there is missed by as much as can be. */
export const MISSING: TargetError = { error: Infinity, span: 0, reached: [0, 0], residuals: [] };
