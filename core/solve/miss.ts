import type { Target } from '../document/wants';
import type { GraphModule } from '../graph/graph';
import { add } from '../law/lin';
import type { Lin, Range } from '../law/lin';
import { countsOctaves } from '../units/octaves';
import type { Setting } from './setting';
import { canRead, driveFor } from '../answers/drive';
import type { Miss, Part } from './part';
import { placeOf, placeOfTarget } from '../graph/place';
import type { Place } from '../graph/place';
import { traceError } from './traces';

/** Least span of what is to move against or with another, volts. */
export const LEAST_SPAN = 0.1;

const part = (name: string, volts: number): Part => ({ name, volts });

/** The drive's bound as its figures run: of a gain that is the same either way from 0 V on. */
function boundAt(setting: Setting, m: GraphModule, place: Place, volts: boolean): Range {
  const [lo, hi] = setting.range(setting.value(place));
  if (place.at.is !== 'end' || volts) return [lo, hi];
  const [a, b] = place.at.spec.span?.(m.params, lo, hi) ?? [lo, hi];
  const folded = place.at.spec.span ? [Math.abs(a), Math.abs(b)] : [a, b];
  // Two quadrants: what is below 0 V is told as it is.
  return m.params.quadrants === 2 ? [lo, hi] : [Math.min(...folded), Math.max(...folded)];
}

/** Figures as drives: with the knobs as they are set, a base frequency among them. */
function reader(m: GraphModule, place: Place, quantity: string): (figure: number) => number {
  if (place.at.is !== 'end' || quantity === 'volts') return (figure) => figure;
  const { spec } = place.at;
  return (figure) => driveFor(spec, m.params, figure);
}

/** The two drives that a span and its centre, or the low end as it is, come to. */
function spanEnds(t: Extract<Target, { want: 'span' }>, m: GraphModule, place: Place, reached: Range): Range {
  const drive = reader(m, place, t.quantity);
  const figure = (volts: number): number =>
    place.at.is === 'end' && t.quantity !== 'volts' ? (place.at.spec.value(m.params, volts) ?? -Infinity) : volts;
  const octaves = countsOctaves(t.quantity);
  const shifted = (from: number, by: number): number => drive(octaves ? from * 2 ** by : from + by);
  if (t.centre !== null) return [shifted(t.centre, -t.span / 2), shifted(t.centre, t.span / 2)];
  if (octaves) return [reached[0], reached[0] + t.span];
  return [reached[0], shifted(figure(reached[0]), t.span)];
}

/** A figure that the destination never reads is missed by this much, whatever the knobs, volts. */
const NEVER = 1;

/** What of the figures the destination cannot read at all. */
function beyond(m: GraphModule, place: Place, quantity: string, figures: readonly unknown[]): Part[] {
  if (place.at.is !== 'end' || quantity === 'volts') return [];
  const { spec } = place.at;
  const never = figures.some((f) => typeof f === 'number' && !canRead(spec, m.params, f));
  return never ? [part('beyond', NEVER)] : [];
}

const worst = (parts: readonly Part[]): number => Math.max(0, ...parts.map((p) => Math.abs(p.volts)));

function rangeError(t: Extract<Target, { high: unknown }>, setting: Setting, m: GraphModule, place: Place): Miss {
  const volts = t.quantity === 'volts';
  const reached = boundAt(setting, m, place, volts);
  const drive = reader(m, place, t.quantity);
  const low = typeof t.low === 'number' ? drive(t.low) : null;
  const high = t.high === null ? null : drive(t.high);
  const [lo, hi] = reached;
  const below = t.low === 'silent' ? Math.max(0, lo) : low === null ? 0 : lo - low;
  const above = high === null ? 0 : hi - high;
  const span = low !== null && high !== null ? high - low : hi - lo;
  if (t.want !== 'within') {
    const parts = [part('low', below), part('high', above), ...beyond(m, place, t.quantity, [t.low, t.high])];
    return { error: worst(parts), span, reached, parts };
  }
  const parts = [part('low', Math.min(0, below)), part('high', Math.max(0, above))];
  return { error: worst(parts), span, reached, parts, margin: hi - lo };
}

function spanError(t: Extract<Target, { want: 'span' }>, setting: Setting, m: GraphModule, place: Place): Miss {
  const reached = boundAt(setting, m, place, t.quantity === 'volts');
  const [lo, hi] = reached;
  const [low, high] = spanEnds(t, m, place, reached);
  const width = part('width', hi - lo - (high - low));
  const centre = part('centre', t.centre === null ? 0 : (hi + lo - high - low) / 2);
  const parts = [width, centre, ...beyond(m, place, t.quantity, [t.centre])];
  return { error: worst(parts), span: high - low, reached, parts };
}

const isPlain = (x: Lin): boolean => x.atoms.every((atom) => atom.op === 'leaf');

/** Of a sum that shall not move: what each source moves it by, else its span. */
function stillness(x: Lin, span: number): Part[] {
  if (!isPlain(x)) return [part('span', span)];
  return x.atoms.map((atom, i) => part(atom.key, ((x.ks[i] as number) * (atom.hi - atom.lo)) / 2));
}

function tiedError(t: Extract<Target, { to: string }>, setting: Setting, place: Place): Miss {
  const other = placeOf(setting.graph, t.to);
  const [a, b] = [setting.value(place), other ? setting.value(other) : setting.value(place)];
  const sum = add(a, b, t.want === 'opposite' ? 1 : -1);
  const [lo, hi] = setting.range(sum);
  const [reached, there] = [setting.range(a), setting.range(b)];
  const spans = [reached[1] - reached[0], there[1] - there[0]];
  const lacking = spans.map((s) => Math.max(0, LEAST_SPAN - s));
  const parts = [...stillness(sum, hi - lo), ...lacking.map((v, i) => part(`lacks ${i}`, v))];
  return { error: Math.max(hi - lo, ...lacking), span: Math.max(...spans), reached, parts };
}

/** How far a setting is from what a target wants; null where its socket is not there. */
export function missOf(target: Target, setting: Setting): Miss | null {
  const place = placeOfTarget(setting.graph, target);
  const m = place && setting.graph.modules[place.module];
  if (!m) return null;
  switch (target.want) {
    case undefined:
    case 'range':
    case 'within':
      if (target.quantity === 'level') return traceError(target, setting, m, place);
      return rangeError(target, setting, m, place);
    case 'span':
      return spanError(target, setting, m, place);
    case 'opposite':
    case 'same':
      return tiedError(target, setting, place);
    default:
      return traceError(target, setting, m, place);
  }
}

/** Whether its error can only be told by running the patch. */
export const needsTrace = (t: Target): boolean =>
  ['mean', 'steps', 'duty', 'fall', 'like'].includes(t.want ?? 'range') || ('quantity' in t && t.quantity === 'level');
