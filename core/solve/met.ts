import type { Target } from '../document/wants';
import type { Setting } from './setting';
import { missOf } from './miss';
import type { Miss } from './part';

/** How a target stands with the knobs as they are. */
export interface Missed {
  readonly target: Target;
  readonly met: boolean;
  /** In drive volts; for `duty`, `fall`, `like` in their own figure. */
  readonly error: number;
}

/** A screen says met within a hundredth of a volt, or what is allowed of a figure of its own. */
const SEEN = 0.01;

function isMet({ want }: Target, { error, span, parts }: Miss): boolean {
  switch (want) {
    case 'opposite':
    case 'same':
      return error <= 1e-3 * span + 1e-9 && parts.every((p) => !p.name.startsWith('lacks') || p.volts <= 1e-9);
    case 'steps':
      return error <= 1e-9;
    case 'duty':
      return error <= 0.1;
    case 'fall':
      return error <= 0.01 * span;
    case 'like':
      return error <= 0.03;
    default:
      return error <= Math.max(1e-9, Math.min(SEEN, 1e-3 * span));
  }
}

/** Whether each target is met at a setting, and by how much it is missed. */
export function missesIn(targets: readonly Target[], setting: Setting): Missed[] {
  return targets.map((target) => {
    const miss = missOf(target, setting);
    return { target, met: miss !== null && isMet(target, miss), error: miss?.error ?? Infinity };
  });
}
