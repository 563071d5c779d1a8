import type { Target } from '../../document/targets';
import { wantOf } from '../../document/targets';
import type { TargetError } from './targetError';

/** What is allowed of a span where drives are not affine in the knobs. */
const SHARE = 1e-3;
/** What is allowed of the span that is wanted of what arrives. */
const ARRIVES_SHARE = 5e-3;
const ROUNDING = 1e-9;
/** What a mean may be off by whatever its end's span is, volts. */
const MEAN_VOLTS = 1e-3;

/**
 * The error that a target still counts as met with, in its own figure: the one rule, for solver, screens and patches.
 *
 * @param affine the ends of its drive are jointly affine in all free knobs.
 */
export function allowedError(target: Target, { span, reached, residuals }: TargetError, affine: boolean): number {
  if (residuals.some((r) => r.required === true && r.volts > ROUNDING)) return 0;
  switch (wantOf(target)) {
    case 'mean':
      return Math.max(MEAN_VOLTS, SHARE * (reached[1] - reached[0]));
    case 'opposite':
    case 'same':
      return SHARE * span;
    case 'steps':
      return ROUNDING;
    case 'duty':
      return 0.1;
    case 'dip':
      return 0.05;
    case 'fall':
    case 'arrive':
      return 0.01 * span;
    case 'like':
      return 0.03;
    default:
      if ('basis' in target && target.basis === 'arrives') return Math.max(ROUNDING, ARRIVES_SHARE * span);
      return affine ? ROUNDING * (1 + span) : Math.max(ROUNDING, SHARE * span);
  }
}

export const isMet = (target: Target, error: TargetError, affine: boolean): boolean =>
  error.error <= allowedError(target, error, affine);
