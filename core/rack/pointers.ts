import { knobsIn } from '../document/knobs';
import type { ModuleDoc } from '../document/types';
import { kindNamed } from '../kinds';
import { isAbsent } from '../kinds/knobs';
import { completeParams } from '../document/params';
import type { Travel } from '../units/knob';
import type { ChannelLimits } from './limits';

/** Knobs of time, rate and tuning: one factor for all of a module’s times, rates or octaves stands for them. */
const SCALED_UNITS: ReadonlySet<string> = new Set(['s', 'Hz', 'bpm', 'beats']);
const SHARES_OF_A_CYCLE: ReadonlySet<string> = new Set(['phase', 'width', 'swing']);

/** Before the knob in the name of what its pointer is off by: `pointer.amount`. */
export const POINTER = 'pointer.';

export interface PointerKnob {
  readonly name: string;
  readonly travel: Travel;
}

/** The hand knobs of a module whose pointer can be off, each with its travel on the channel that the module sits on. */
export function pointerKnobs(m: ModuleDoc, bpm: number, channels: ChannelLimits | null): PointerKnob[] {
  const kind = kindNamed(m.kind);
  if (!kind) return [];
  const params = completeParams(kind, m.params, bpm);
  return knobsIn(m, bpm).flatMap((knob): PointerKnob[] => {
    const { name, at, spec, min, max } = knob;
    if (SCALED_UNITS.has(spec.unit ?? '') || SHARES_OF_A_CYCLE.has(name)) return [];
    const there = channels?.limits.get(at);
    if (isAbsent(knob, params) && !there) return [];
    const [low, high] = there ?? [min, max];
    const panel = channels?.panels.get(at);
    return high > low ? [{ name, travel: { min: low, max: high, taper: spec.taper, ...(panel && { panel }) } }] : [];
  });
}
