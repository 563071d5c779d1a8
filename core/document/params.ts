import type { Kind } from '../kinds/kind';
import type { ParamValue, ParamValues } from '../kinds/params';

/** A kind's parameters, complete, with what is left out at its default. */
export function completeParams(kind: Kind, given: ParamValues = {}, bpm = 120): ParamValues {
  const values: Record<string, ParamValue> = {};
  for (const [name, spec] of Object.entries(kind.params)) {
    const fallback = spec.type === 'number' && spec.fromSetting === 'bpm' ? bpm : spec.default;
    values[name] = Object.hasOwn(given, name) ? (given[name] as ParamValue) : fallback;
  }
  return values;
}

/** Of complete parameters, those that exist with these settings. */
export const existing = (kind: Kind, all: ParamValues): ParamValues =>
  Object.fromEntries(Object.entries(all).filter(([name]) => kind.params[name]?.exists?.(all) ?? true));

/** Complete parameters with the patch's tempo in force, where they follow it. */
export function withTempo(kind: Kind, complete: ParamValues, bpm: number): ParamValues {
  const tempo = kind.panel?.tempo;
  const beats = tempo ? complete[tempo.beats] : null;
  return kind.panel?.tempo && typeof beats === 'number'
    ? { ...complete, [kind.panel?.tempo.sets]: bpm / (60 * beats) }
    : complete;
}
