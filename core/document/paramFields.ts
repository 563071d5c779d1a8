import type { Kind } from '../kinds/kind';
import type { GesturePoint, ParamSpec, ParamValue, ParamValues } from '../kinds/params';
import { scaleNames } from '../units/scales';
import { byDefault, choice, either, flag, list, number, optional, orNone, record, text, typed } from './fields';
import type { Declared, Field } from './fields';
import { completeParams } from './params';
import { placeIn, Reader, shown } from './reader';
import { readField } from './readField';
import type { PatchError } from './result';

/** The parameters of kinds as fields of a document. */

const volts = number(-12, 12);

const pointsOf = (most: number) =>
  list(record({ t: number(0, 1e6), volts }), most, {
    shared: true,
    least: { count: 1, words: 'must have at least one point' },
    check: rising,
  });

function rising(r: Reader, points: readonly GesturePoint[], path: string): void {
  points.forEach(({ t }, i) => {
    const before = points[i - 1]?.t ?? -1;
    if (t <= before) r.fail(`${path}[${i}].t`, `must be later than the point before it (${before}), got ${t}`);
  });
}

const stepsOf = (most: number) =>
  list(record({ volts: byDefault(volts, 0), gate: byDefault(flag, true), tie: byDefault(flag, false) }), most, {
    shared: true,
    least: { count: 1, words: 'must have at least one step' },
  });

const scale = either(
  [
    choice(scaleNames),
    list(number(0, 12), 128, { least: { count: 1, words: 'must be a scale’s name or a list of semitones' } }),
  ],
  (x) => (typeof x === 'string' ? 0 : 1),
);

function declared(spec: ParamSpec): Declared {
  switch (spec.type) {
    case 'number': {
      const plain = number(spec.min, spec.max, spec.whole ? { whole: true } : {});
      return spec.nullable ? orNone(plain) : plain;
    }
    case 'choice':
      return choice<string | number>(spec.options);
    case 'flag':
      return flag;
    case 'text':
      return text(spec.longest);
    case 'points':
      return pointsOf(spec.most);
    case 'steps':
      return stepsOf(spec.most);
    case 'scale':
      return scale;
  }
}

/** One parameter, as its kind declares it. */
export const paramField = (spec: ParamSpec): Field<ParamValue> =>
  typed({ ...declared(spec), ...(spec.says !== undefined && { says: spec.says }) });

const known = new WeakMap<Kind, Field<ParamValues>>();

/** The parameters that a document gives, each or none; limits that hang on other parameters are checked last. */
export function paramsField(kind: Kind): Field<ParamValues> {
  const before = known.get(kind);
  if (before) return before;
  const fields = Object.entries(kind.params).map(([name, spec]) => {
    // A list is too long to be shown as a default.
    const implied = spec.type === 'points' || spec.type === 'steps' ? {} : { implied: spec.default };
    return [name, optional({ ...paramField(spec), ...implied })] as const;
  });
  const made = typed<ParamValues>(
    record(Object.fromEntries(fields), {
      member: `a parameter of ${kind.name}`,
      check: (r, given, path) => checkTogether(r, kind, given as ParamValues, path),
    }),
  );
  known.set(kind, made);
  return made;
}

/** Whether a kind can be set to these values: every fault, named by its parameter; none where it can. */
export function paramFaults(kind: Kind, given: ParamValues): readonly PatchError[] {
  const r = new Reader();
  readField(r, paramsField(kind), given, '');
  return r.errors;
}

/** A default out of the given limits is as wrong as a given value, so all values are checked, not only the given. */
function checkTogether(r: Reader, kind: Kind, given: ParamValues, path: string): void {
  const all = completeParams(kind, given);
  const before = r.errors.length;
  for (const [low, high] of kind.panel?.below ?? []) {
    if (!(Number(all[low]) < Number(all[high]))) {
      r.fail(placeIn(path, low), `must be below ${high}, got ${shown(all[low])} and ${shown(all[high])}`);
    }
  }
  if (r.errors.length > before) return;
  for (const [name, spec] of Object.entries(kind.params)) {
    const isGiven = Object.hasOwn(given, name);
    if (spec.exists && !spec.exists(all)) {
      if (isGiven) r.fail(placeIn(path, name), 'does not exist with these settings');
    } else if (spec.type === 'number' && spec.limits) {
      const [min, max] = spec.limits(all);
      const value = Number(all[name]);
      if (value < min || value > max) {
        r.fail(placeIn(path, name), `must be between ${min} and ${max}, got ${value}${isGiven ? '' : ' by default'}`);
      }
    }
  }
  const broken = kind.panel?.check?.(all);
  if (broken) r.fail(placeIn(path, broken.param), broken.message);
}
