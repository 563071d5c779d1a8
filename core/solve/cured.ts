import { partsOf } from '../document/sockets';
import { predict as predicted } from '../answers/predict';
import type { PredictOptions, Prediction } from '../answers/predict';
import { knobPlace } from '../document/names';
import type { Patch } from '../document/types';
import type { Target } from '../document/targets';
import type { Cure } from '../findings/finding';
import { kindNamed } from '../kinds';
import { showQuantity } from '../units/show';
import { solve } from './solve';
import { editsOf } from './types';
import type { KnobSetting } from './types';

/** A fix of more knobs than this is a new patch, not a fix. */
const MOST_KNOBS = 3;

/** `Trim gain to 0.4` */
function told(patch: Patch, { at, value }: KnobSetting): string {
  const { id, name: param } = partsOf(at);
  const m = patch.modules.find((x) => x.id === id);
  const spec = m && kindNamed(m.kind)?.params[param];
  const unit = spec?.type === 'number' ? spec.unit : '';
  return `${knobPlace(patch.modules, at)} to ${showQuantity(value, unit)}`;
}

/** The knobs with which targets are met, but for some; none where they are not. */
const knobsOnce = (patch: Patch, targets: readonly Target[], held: readonly string[]): readonly KnobSetting[] =>
  solve(patch, { live: true, rough: true, held }, targets).solutions.at(0)?.settings ?? [];

/**
 * Knobs behind a socket with which what is wanted there is met: first such that meet the patch's own targets too, then
 * others, each time without the knobs of the tries before.
 */
export function* knobsFor(patch: Patch, wanted: Target): Generator<Cure> {
  const held: string[] = [];
  const asks = [...(patch.targets.length > 0 ? [[...patch.targets, wanted]] : []), [wanted], [wanted]];
  for (const targets of asks) {
    const settings = knobsOnce(patch, targets, held);
    if (settings.length === 0 || settings.length > MOST_KNOBS) continue;
    held.push(...settings.map((s) => s.at));
    yield { label: settings.map((s) => told(patch, s)).join(', '), edits: editsOf({ settings, jumpers: [] }) };
  }
}

/** Bounds, seen ranges, readings and findings of a patch, with cures for which the solver finds the knobs. */
export const predict = (patch: Patch, options: PredictOptions = {}): Prediction =>
  predicted(patch, { finder: knobsFor, ...options });
