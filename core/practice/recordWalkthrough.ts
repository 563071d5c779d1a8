import { completeParams } from '../document/params';
import { LIMITS } from '../document/limits';
import { stateOf } from '../document/state';
import type { ModuleDoc, Patch, Variant } from '../document/types';
import { kindNamed } from '../kinds';
import { socketAt } from '../document/sockets';
import { settingAt, settled, WALKTHROUGH_LIMITS } from './walkthrough';
import type { Walkthrough, WalkthroughStep } from './walkthrough';

/** What somebody did in one go while a walkthrough was recorded. */
export interface Gesture {
  /** Its name, which the step begins as: `Trim gain 0.40`. */
  readonly label: string;
  /** The destination that was looked at. */
  readonly at: string | null;
  readonly patch: Patch;
}

const same = (a: unknown, b: unknown): boolean => a === b || JSON.stringify(a) === JSON.stringify(b);
const withoutParams = ({ params: _params, ...m }: ModuleDoc): object => m;

/** The settings that two states differ by; null where they differ by more. */
function settingsBetween(a: Patch, b: Patch): WalkthroughStep['set'] | null {
  const [x, y] = [stateOf(a), stateOf(b)];
  if (!same({ ...x, modules: x.modules.map(withoutParams) }, { ...y, modules: y.modules.map(withoutParams) }))
    return null;
  const set = b.modules.flatMap((m, i) => {
    const kind = kindNamed(m.kind);
    if (!kind) return [];
    const [before, after] = [completeParams(kind, a.modules[i]?.params), completeParams(kind, m.params)];
    return Object.keys(after)
      .filter((name) => !same(before[name], after[name]))
      .map((name) => ({ at: socketAt(m.id, name), value: after[name] as unknown }));
  });
  return set.length <= WALKTHROUGH_LIMITS.set ? inOrder(a, set) : null;
}

/** Settings so that each is taken: a travel before the knob that goes by it. Null where no order does that. */
function inOrder(before: Patch, set: WalkthroughStep['set']): WalkthroughStep['set'] | null {
  const [ordered, left] = [[] as (typeof set)[number][], [...set]];
  let now = before;
  while (left.length > 0) {
    const next = left.findIndex((one) => {
      const done = settled(now, one);
      if (done.ok) now = done.value;
      return done.ok;
    });
    if (next < 0) return null;
    ordered.push(...left.splice(next, 1));
  }
  return set.every(({ at, value }) => same(settingAt(now, at), value)) ? ordered : null;
}

/** Whether another gesture would be one too many. */
export const isFull = (gestures: readonly Gesture[]): boolean =>
  gestures.length >= Math.min(WALKTHROUGH_LIMITS.steps, LIMITS.variants);

/**
 * A walkthrough of what was done with a patch: a step for each gesture. Knobs become settings that move; what changes
 * the wiring becomes a variant that the step goes over to.
 */
export function recordedWalkthrough(title: string, base: Patch, gestures: readonly Gesture[]): Walkthrough {
  const variants: Variant[] = [];
  let [before, at] = [base, null as string | null];
  const steps = gestures.map((gesture, i): WalkthroughStep => {
    const set = settingsBetween(before, gesture.patch);
    const moved = gesture.at !== null && gesture.at !== at;
    const step = {
      text: gesture.label,
      set: set ?? [],
      seconds: 2,
      ...(moved && gesture.at !== null && { at: gesture.at }),
      ...(set === null && { variant: `Step ${i + 1}` }),
    };
    if (set === null) variants.push({ name: `Step ${i + 1}`, ...stateOf(gesture.patch) });
    before = gesture.patch;
    if (moved) at = gesture.at;
    return step;
  });
  return { format: 'fenvo.walkthrough', version: 1, title, about: '', patch: { ...base, variants }, steps };
}
