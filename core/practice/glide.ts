import { knobsIn } from '../document/knobs';
import { idOf } from '../document/sockets';
import type { Patch } from '../document/types';
import { applyEdits } from '../edit/edit';
import { positionOf, valueAt } from '../units/knob';
import { stepEdits } from './walkthrough';
import type { WalkthroughStep } from './walkthrough';

/** Knobs that a step turns, and what they stand at before and after. */
function turned(before: Patch, step: WalkthroughStep) {
  const knobs = (patch: Patch, at: string) => {
    const m = patch.modules.find((x) => x.id === idOf(at));
    return m && knobsIn(m, patch.settings.bpm).find((k) => k.at === at);
  };
  const went = applyEdits(before, stepEdits(before, { ...step, set: [] }));
  const after = applyEdits(before, stepEdits(before, step));
  return step.set.flatMap(({ at, value }) => {
    const [from, knob] = [knobs(went, at)?.value, knobs(after, at)];
    return knob && from !== undefined && typeof value === 'number' && value !== from ? [{ knob, from, to: value }] : [];
  });
}

/** Whether a step turns any knob; what else it sets changes at once. */
export const isGliding = (before: Patch, step: WalkthroughStep): boolean =>
  step.seconds > 0 && turned(before, step).length > 0;

/**
 * The patch on its way through a step.
 *
 * @param share of the way, 0..1: knobs move evenly over their travel, all else has changed already.
 */
export function glided(before: Patch, step: WalkthroughStep, share: number): Patch {
  const after = applyEdits(before, stepEdits(before, step));
  if (share >= 1) return after;
  return applyEdits(
    after,
    turned(before, step).map(({ knob, from: start, to }) => {
      const travel = { min: knob.min, max: knob.max, taper: knob.spec.taper };
      const [from, there] = [positionOf(travel, start), positionOf(travel, to)];
      const value = valueAt(travel, from + share * (there - from));
      return { do: 'set', module: idOf(knob.at), param: knob.name, value } as const;
    }),
  );
}
