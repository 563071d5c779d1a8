import { nameOf } from '../document/sockets';
import type { GraphModule } from '../graph/graph';
import type { Sockets } from '../kinds/kind';
import type { ParamValues } from '../kinds/params';
import type { AtomStore } from '../law/builder';
import type { Affine, Range } from '../law/affine';
import { isLinearIn, tracksOf } from '../graph/tracks';
import type { Track } from '../graph/tracks';

/** Places that are looked at on the way of one hand, of two, and of more. */
const PLACES = [17, 7, 3] as const;
/** More hands than this on one module are looked at by their ends alone. */
const MOST = 4;

/** The ways of those hands that move. */
const waysOf = (m: GraphModule): readonly Track[] =>
  m.hands.length === 0 ? NONE : tracksOf(m, 1).filter((t) => t.hi > t.lo);

const NONE: readonly Track[] = [];

/**
 * Hands on knobs that a law asks for as voltages: it then holds between any two places of their ways, too.
 *
 * @returns the module without those hands, and what it sees of them.
 */
export function handsAsVoltages(
  store: AtomStore,
  m: GraphModule,
  io: Sockets,
): { readonly module: GraphModule; readonly io: Sockets } {
  const names = m.kind.panel?.voltages ?? [];
  const ways = waysOf(m).filter((t) => names.includes(t.param));
  if (ways.length === 0) return { module: m, io };
  const knobs = new Map(ways.map((t) => [t.param, store.leaf(`hand on ${m.id}.${t.param}`, t.lo, t.hi)]));
  const hands = m.hands.filter((h) => !knobs.has(nameOf(h.at)));
  return { module: { ...m, hands }, io: { ...io, hand: (param) => knobs.get(param) ?? null } };
}

/** What hands turn a module's knobs to. */
export interface Passed {
  /** As settings: every end of their ways, and places between. */
  readonly settings: readonly ParamValues[];
  /** Nothing that comes out lies beyond what these bring out. */
  readonly exact: boolean;
}

/** The settings that hands pass; where the kind knows the only places at which it can turn, those, and all is known. */
export function passedSettings(store: AtomStore, m: GraphModule, io: Sockets): Passed {
  const ways = waysOf(m);
  const [first] = ways;
  if (!first) return { settings: [m.params], exact: true };
  const turns = ways.length === 1 ? m.kind.panel?.turnsAt?.(store, m.params, io) : undefined;
  if (turns?.param === first.param) {
    const { param, lo, hi } = first;
    const places = [lo, ...turns.places.filter((at) => at > lo && at < hi).toSorted((a, b) => a - b), hi];
    return { settings: places.map((value) => ({ ...m.params, [param]: value })), exact: true };
  }
  const count = ways.length > MOST ? 2 : (PLACES[Math.min(ways.length, PLACES.length) - 1] as number);
  let settings: ParamValues[] = [m.params];
  for (const { param, lo, hi } of ways) {
    const values = placesOn(lo, hi, count);
    settings = settings.flatMap((p) => values.map((value) => ({ ...p, [param]: value })));
  }
  return { settings, exact: false };
}

const LEAST_RATIO = 1e-9;

/** As a share of a step: how near to an end two more places lie, so that what turns right behind it is seen to. */
const NEAR = 1 / 8;

/**
 * Places from end to end in even steps, and where both ends lie above 0 in even ratios too; in their order. Of one
 * hand or two each end has two more beside it, and none between those.
 */
function placesOn(lo: number, hi: number, count: number): number[] {
  const step = (hi - lo) / (count - 1);
  const steps = Array.from({ length: count }, (_, i) => (i === count - 1 ? hi : lo + i * step));
  const near = (count < PLACES[1] ? [] : [NEAR, 2 * NEAR]).map((share) => share * step);
  const beside = [...near.map((d) => lo + d), ...near.map((d) => hi - d)];
  // Too near to 0 for a ratio, it is as good as 0.
  if (!(lo > hi * LEAST_RATIO) || count < 3) return [...steps, ...beside].toSorted((a, b) => a - b);
  const ratios = Array.from({ length: count - 2 }, (_, i) => lo * (hi / lo) ** ((i + 1) / (count - 1)));
  const apart = ratios.filter((x) => near.every((d) => x - lo > d && hi - x > d));
  return [...steps, ...apart, ...beside].toSorted((a, b) => a - b);
}

export const hullOf = (ranges: readonly Range[]): Range => [
  Math.min(...ranges.map(([lo]) => lo)),
  Math.max(...ranges.map(([, hi]) => hi)),
];

/**
 * Where a value can go between the places that were looked at: where it turns at one of them, a corner beside it stands
 * out by less than its greater step; where it bends so much at an end that it may turn right behind it, by twice what a
 * parabola through the three places at that end does.
 */
function between(ranges: readonly Range[]): Range {
  const [lo, hi] = hullOf(ranges);
  const bend = (side: 0 | 1): number => {
    const ordered = ranges.map((r) => r[side]);
    if (ordered.some((v) => !Number.isFinite(v))) return 0;
    return ordered.reduce(
      (most, v, i) => {
        const [a, b] = [ordered[i - 1], ordered[i + 1]];
        const turns = a !== undefined && b !== undefined && (v - a) * (b - v) <= 0;
        return turns ? Math.max(most, Math.abs(v - a), Math.abs(b - v)) : most;
      },
      Math.max(dipBehind(ordered.slice(0, 3)), dipBehind(ordered.slice(-3).toReversed())),
    );
  };
  return [lo - bend(0), hi + bend(1)];
}

/** How far a value may stand out right behind the first of three places, by twice what a parabola through them does. */
function dipBehind([first = 0, second = first, third = second]: readonly number[]): number {
  const step = second - first;
  const bent = third - second - step;
  const slope = step - bent / 2;
  return slope * step < 0 ? slope ** 2 / Math.abs(bent) : 0;
}

/** A value of a module whose knobs hands turn, as one symbol over all that it takes. */
export function hullAt(
  store: AtomStore,
  m: GraphModule,
  { settings, exact }: Passed,
  name: string,
  range: (x: Affine) => Range,
  at: (p: ParamValues) => Affine,
): Affine {
  if (settings.length === 1) return at(settings[0] as ParamValues);
  const ranges = settings.map((p) => range(at(p)));
  const [lo, hi] = exact ? hullOf(ranges) : between(ranges);
  return store.leaf(`${name} of ${m.id}, by hand`, lo, hi);
}

/** A value that is linear in each track: their corners, mixed by a symbol for each hand. */
function mixed(store: AtomStore, m: GraphModule, tracks: readonly Track[], at: (p: ParamValues) => Affine): Affine {
  const mix = (rest: readonly Track[], p: ParamValues): Affine => {
    const [track, ...others] = rest;
    if (!track) return at(p);
    const low = mix(others, { ...p, [track.param]: track.lo });
    const high = mix(others, { ...p, [track.param]: track.hi });
    const share = store.leaf(`hand on ${m.id}.${track.param}`, 0, 1);
    return store.sum([low, 1], [store.mul(share, store.sum([high, 1], [low, -1])), 1]);
  };
  return mix(tracks, m.params);
}

/**
 * A module's law with hands on its knobs: where its outputs are linear in them, as it is, with a symbol for each hand
 * that all its outputs share; otherwise each output as one symbol over all that it can be.
 */
export function movedLaw(
  store: AtomStore,
  m: GraphModule,
  passed: Passed,
  io: Sockets,
): Readonly<Record<string, Affine>> {
  const tracks = waysOf(m);
  if (tracks.length === 0) return m.kind.law(store, m.params, io);
  const names = m.outputs.map((o) => o.name);
  const exact = isLinearIn(m, tracks);
  const of = (name: string): Affine => {
    const at = (p: ParamValues): Affine => m.kind.law(store, p, io)[name] as Affine;
    return exact ? mixed(store, m, tracks, at) : hullAt(store, m, passed, name, io.range, at);
  };
  return Object.fromEntries(names.map((name) => [name, of(name)]));
}

/** Whether a hand turns one of a module's knobs. */
export const hasHand = (m: GraphModule, param: string): boolean => m.hands.some((h) => nameOf(h.at) === param);
