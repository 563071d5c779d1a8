import type { Target } from '../../document/targets';
import { isAffine } from './affine';
import { errorOf } from './errorOf';
import { isMet } from './met';
import type { Setting } from './setting';

/** How a target stands with the knobs as they are. */
export interface TargetStanding {
  readonly target: Target;
  readonly met: boolean;
  /** In drive volts; for `duty`, `fall`, `like` in their own figure. */
  readonly error: number;
}

/** Whether each target is met at a setting, and by how much it is missed. */
export function standingsIn(targets: readonly Target[], setting: Setting): TargetStanding[] {
  return targets.map((target) => {
    const error = errorOf(target, setting);
    if (!error) return { target, met: false, error: Infinity };
    // Whether it is affine is only worked out where that decides.
    const [exactly, nearly] = [isMet(target, error, true), isMet(target, error, false)];
    const met = exactly === nearly ? exactly : isMet(target, error, isAffine(setting.graph, target));
    return { target, met, error: error.error };
  });
}
