import { paramFaults } from '../document/paramFields';
import { completeParams, existing } from '../document/params';
import type { Channel, ChannelMode } from '../document/rackTypes';
import { kindNamed } from '../kinds';
import { paramLabel } from '../kinds/knobs';
import type { ParamSpec, ParamValue, ParamValues } from '../kinds/params';
import type { Kind } from '../kinds/kind';

/** What a channel can be set to for what is wanted of it, or why it cannot. */
export type Held = { readonly ok: true; readonly params: ParamValues } | { readonly ok: false; readonly why: string };

const no = (why: string): Held => ({ ok: false, why });

function same(a: ParamValue | undefined, b: ParamValue | undefined): boolean {
  if (typeof a === 'number' && typeof b === 'number') return Math.abs(a - b) <= 1e-9 * Math.max(1, Math.abs(a));
  return a === b || JSON.stringify(a) === JSON.stringify(b);
}

const shown = (x: ParamValue | undefined): string => (Array.isArray(x) ? 'a list' : String(x));

/** The values that one parameter may take there for what is wanted, best first; a text says why there is none. */
function optionsOf(
  mode: ChannelMode,
  name: string,
  spec: ParamSpec,
  wanted: ParamValue | undefined,
): ParamValue[] | string {
  const allowed = Object.hasOwn(mode.fixed, name) ? [mode.fixed[name] as ParamValue] : mode.choices[name];
  if (allowed) {
    if (wanted === undefined) return [allowed.find((v) => same(v, spec.default)) ?? (allowed[0] as ParamValue)];
    const hit = allowed.filter((v) => same(v, wanted));
    // What others reach may be more than is asked for.
    if (spec.reach) return [...hit, ...allowed.filter((v) => !same(v, wanted) && reachesPast(spec, v, wanted))];
    if (hit.length > 0) return hit;
    const there = allowed.length === 1 ? `is fixed at ${shown(allowed[0])}` : `can be ${allowed.map(shown).join(', ')}`;
    return `${paramLabel(name, spec)} ${there} on this channel; the patch needs ${shown(wanted)}`;
  }
  const range = mode.ranges[name];
  if (!range) return [wanted ?? spec.default];
  const [low, high] = range;
  if (wanted === undefined) return [Math.min(high, Math.max(low, Number(spec.default)))];
  if (typeof wanted === 'number' && wanted >= low - 1e-12 && wanted <= high + 1e-12) return [wanted];
  if (spec.reach && typeof wanted === 'number') return [Math.min(high, Math.max(low, wanted))];
  return `${paramLabel(name, spec)} ranges from ${low} to ${high} on this channel; the patch needs ${shown(wanted)}`;
}

/** Of a number of sockets, fewer never serve; how far a knob reaches is told by the knob itself. */
const reachesPast = (spec: ParamSpec, there: ParamValue, wanted: ParamValue): boolean =>
  !(spec.type === 'number' && spec.whole) || Number(there) >= Number(wanted);

/** Every way to pick one of each list. */
function* picks(lists: readonly (readonly [string, readonly ParamValue[]])[]): Generator<Record<string, ParamValue>> {
  const [first, ...rest] = lists;
  if (!first) return yield {};
  for (const value of first[1]) for (const more of picks(rest)) yield { [first[0]]: value, ...more };
}

function fault(kind: Kind, params: ParamValues): string | null {
  const [error] = paramFaults(kind, params);
  return error ? `${error.path} ${error.message}` : null;
}

const known = new WeakMap<Kind, ParamValues>();

function defaultsOf(kind: Kind): ParamValues {
  const before = known.get(kind);
  if (before) return before;
  const defaults = completeParams(kind);
  known.set(kind, defaults);
  return defaults;
}

/** What differs from the defaults, as documents keep it. */
function plain(kind: Kind, params: ParamValues): ParamValues {
  const defaults = defaultsOf(kind);
  return Object.fromEntries(Object.entries(params).filter(([name, value]) => !same(value, defaults[name])));
}

/**
 * The settings of a channel for what is wanted of it.
 *
 * @param needs the parameters that matter; any others are as the channel has them.
 */
export function channelSettings(mode: ChannelMode, needs: ParamValues): Held {
  const kind = kindNamed(mode.kind);
  if (!kind) return no(`there is no kind ${mode.kind}`);
  const single: Record<string, ParamValue> = {};
  const several: (readonly [string, readonly ParamValue[]])[] = [];
  for (const [name, spec] of Object.entries(kind.params)) {
    const options = optionsOf(mode, name, spec, needs[name]);
    if (typeof options === 'string') return no(options);
    if (options.length === 0) return no(`${paramLabel(name, kind.params[name])} has too small a range on this channel`);
    if (options.length === 1) single[name] = options[0] as ParamValue;
    else several.push([name, options]);
  }
  let why = 'these settings are not possible together';
  for (const pick of picks(several)) {
    const all = { ...single, ...pick };
    const params = existing(kind, all);
    const found = fault(kind, params) ?? lost(kind, all, needs);
    if (found === null) return { ok: true, params: plain(kind, params) };
    why = found;
  }
  return no(why);
}

/** A parameter that matters and that does not exist there. */
function lost(kind: Kind, all: ParamValues, needs: ParamValues): string | null {
  const name = Object.keys(needs).find((n) => !(kind.params[n]?.exists?.(all) ?? kind.params[n] !== undefined));
  return name === undefined ? null : `there is no ${name} there`;
}

/** The way a channel is a kind, if it can be one. */
export const modeOf = ({ modes }: Channel, kind: string): ChannelMode | undefined => modes.find((m) => m.kind === kind);

/** The limits that a channel sets to a knob of its kind, within the kind's own. */
export function limitsThere(
  mode: ChannelMode,
  name: string,
  own: readonly [number, number],
): readonly [number, number] {
  if (Object.hasOwn(mode.fixed, name)) {
    const value = Number(mode.fixed[name]);
    return [value, value];
  }
  const [low, high] = mode.ranges[name] ?? own;
  return [Math.max(low, own[0]), Math.min(high, own[1])];
}
