import type { Kind } from '../kinds/kind';
import type { GesturePoint, ParamSpec, ParamValue, ParamValues, Scale, Step } from '../kinds/params';
import { scaleNames } from '../units/scales';
import { own, shown } from './reader';
import type { Fields, Reader } from './reader';

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
  const beats = kind.tempo ? complete[kind.tempo.beats] : null;
  return kind.tempo && typeof beats === 'number' ? { ...complete, [kind.tempo.sets]: bpm / (60 * beats) } : complete;
}

/** Reads the parameters that a document gives; limits that hang on other parameters are checked last. */
export function readParams(r: Reader, kind: Kind, x: Fields, path: string): ParamValues {
  const given: Record<string, ParamValue> = {};
  const before = r.errors.length;
  for (const key of Object.keys(x)) {
    const spec = Object.hasOwn(kind.params, key) ? kind.params[key] : undefined;
    const at = `${path}.${key}`;
    if (spec) given[key] = readParam(r, spec, own(x, key), at);
    else r.fail(at, `is not a parameter of ${kind.name}; known are ${Object.keys(kind.params).join(', ') || 'none'}`);
  }
  if (r.errors.length === before) checkTogether(r, kind, given, path);
  return given;
}

/** A default out of the given limits is as wrong as a given value, so all values are checked, not only the given. */
function checkTogether(r: Reader, kind: Kind, given: ParamValues, path: string): void {
  const all = completeParams(kind, given);
  const before = r.errors.length;
  for (const [low, high] of kind.below ?? []) {
    if (!(Number(all[low]) < Number(all[high]))) {
      r.fail(`${path}.${low}`, `must be below ${high}, got ${shown(all[low])} and ${shown(all[high])}`);
    }
  }
  if (r.errors.length > before) return;
  for (const [name, spec] of Object.entries(kind.params)) {
    const isGiven = Object.hasOwn(given, name);
    if (spec.exists && !spec.exists(all)) {
      if (isGiven) r.fail(`${path}.${name}`, 'does not exist with these settings');
    } else if (spec.type === 'number' && spec.limits) {
      const [min, max] = spec.limits(all);
      const value = Number(all[name]);
      if (value < min || value > max) {
        r.fail(`${path}.${name}`, `must be between ${min} and ${max}, got ${value}${isGiven ? '' : ' by default'}`);
      }
    }
  }
  const broken = kind.check?.(all);
  if (broken) r.fail(`${path}.${broken.param}`, broken.message);
}

export function readParam(r: Reader, spec: ParamSpec, x: unknown, path: string): ParamValue {
  if (Array.isArray(x) && r.trusted.has(x)) return x as ParamValue;
  switch (spec.type) {
    case 'number':
      if (x === null && spec.nullable) return null;
      return spec.whole ? r.whole(x, path, spec.min, spec.max) : r.number(x, path, spec.min, spec.max);
    case 'choice':
      return r.oneOf<string | number>(x, path, spec.options);
    case 'flag':
      return r.flag(x, path);
    case 'text':
      return r.text(x, path, spec.longest);
    case 'points':
      return readPoints(r, r.list(x, path, spec.most), path);
    case 'steps':
      return readSteps(r, r.list(x, path, spec.most), path);
    case 'scale':
      return readScale(r, x, path);
  }
}

const VOLTS = 12;

function readPoints(r: Reader, list: readonly unknown[], path: string): GesturePoint[] {
  if (list.length === 0) r.fail(path, 'must have at least one point');
  let last = -1;
  return list.map((x, i) => {
    const at = `${path}[${i}]`;
    const point = r.object(x, at);
    r.known(point, at, ['t', 'volts']);
    const t = r.number(own(point, 't'), `${at}.t`, 0, 1e6);
    if (t <= last) r.fail(`${at}.t`, `must be later than the point before it (${last}), got ${t}`);
    last = t;
    return { t, volts: r.number(own(point, 'volts'), `${at}.volts`, -VOLTS, VOLTS) };
  });
}

function readSteps(r: Reader, list: readonly unknown[], path: string): Step[] {
  if (list.length === 0) r.fail(path, 'must have at least one step');
  return list.map((x, i) => {
    const at = `${path}[${i}]`;
    const step = r.object(x, at);
    r.known(step, at, ['volts', 'gate', 'tie']);
    const flag = (key: string, fallback: boolean): boolean =>
      own(step, key) === undefined ? fallback : r.flag(own(step, key), `${at}.${key}`);
    const volts = own(step, 'volts') === undefined ? 0 : r.number(own(step, 'volts'), `${at}.volts`, -VOLTS, VOLTS);
    return { volts, gate: flag('gate', true), tie: flag('tie', false) };
  });
}

function readScale(r: Reader, x: unknown, path: string): Scale {
  if (typeof x === 'string') return r.oneOf(x, path, scaleNames);
  const list = r.list(x, path, 128).map((n, i) => r.number(n, `${path}[${i}]`, 0, 12));
  if (list.length === 0) r.fail(path, 'must be a scale’s name or a list of semitones');
  return list;
}
