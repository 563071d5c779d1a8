import type { Target } from '../../document/targets';
import type { Graph, GraphModule } from '../../graph/graph';
import { memoryIn } from '../../bounds/repeats';
import { upstreamOfPlace } from '../../simulate/arrival';
import type { EndSpec } from '../../kinds/kind';
import type { ParamValues } from '../../kinds/params';
import { add } from '../../law/affine';
import type { Affine, Range } from '../../law/affine';
import { countsOctaves } from '../../units/ratios';
import type { Setting } from './setting';
import { canRead, driveFor, figureHull } from '../../answers/drive';
import { residual } from './targetError';
import type { Residual, TargetError } from './targetError';
import { placeOf, placeOfTarget } from '../../graph/place';
import type { Place } from '../../graph/place';

/** Least span of what is to move against or with another, volts. */
export const LEAST_SPAN = 0.1;

type Asked = Pick<Extract<Target, { basis?: unknown }>, 'quantity' | 'basis'>;

/**
 * What the drive reaches, or of it what arrives, as its figures run: of a gain that is the same either way from 0 V on;
 * where a hand turns the destination's own knobs, all that the reading shows, as drives of the settings at its start.
 */
function reachedAt(setting: Setting, m: GraphModule, place: Place, { quantity, basis }: Asked): Range {
  const arriving = basis === 'arrives' ? setting.arriving(place) : null;
  const [lo, hi] = arriving ?? setting.range(setting.value(place));
  const volts = quantity === 'volts';
  if (place.at.is !== 'end' || volts) return [lo, hi];
  const { spec } = place.at;
  const passed = arriving ? null : setting.passed(place);
  if (passed) return drivesOf(spec, m.params, figureHull(spec, passed), [lo, hi]);
  const [a, b] = spec.span?.(m.params, lo, hi) ?? [lo, hi];
  const folded = spec.span ? [Math.abs(a), Math.abs(b)] : [a, b];
  return spec.oneSided?.(m.params) === true ? [lo, hi] : [Math.min(...folded), Math.max(...folded)];
}

/** The drives that give two figures; of silence the drive that there is. */
function drivesOf(
  spec: EndSpec<ParamValues>,
  params: ParamValues,
  [low, high]: readonly [number | null, number | null],
  [lo, hi]: Range,
): Range {
  return [
    low === null ? Math.min(0, lo) : driveFor(spec, params, low),
    high === null ? hi : driveFor(spec, params, high),
  ];
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
function beyond(m: GraphModule, place: Place, quantity: string, figures: readonly unknown[]): Residual[] {
  if (place.at.is !== 'end' || quantity === 'volts') return [];
  const { spec } = place.at;
  const never = figures.some((f) => typeof f === 'number' && !canRead(spec, m.params, f));
  return never ? [residual('beyond', NEVER)] : [];
}

const worst = (residuals: readonly Residual[]): number => Math.max(0, ...residuals.map((p) => Math.abs(p.volts)));

function rangeError(
  t: Extract<Target, { high: unknown }>,
  setting: Setting,
  m: GraphModule,
  place: Place,
): TargetError {
  const reached = reachedAt(setting, m, place, t);
  const drive = reader(m, place, t.quantity);
  const low = typeof t.low === 'number' ? drive(t.low) : null;
  const high = t.high === null ? null : drive(t.high);
  const [lo, hi] = reached;
  const below = t.low === 'silent' ? Math.max(0, lo) : low === null ? 0 : lo - low;
  const above = high === null ? 0 : hi - high;
  const span = low !== null && high !== null ? high - low : hi - lo;
  if (t.want !== 'within') {
    const residuals = [
      residual('low', below),
      residual('high', above),
      ...beyond(m, place, t.quantity, [t.low, t.high]),
    ];
    return { error: worst(residuals), span, reached, residuals };
  }
  const residuals = [residual('low', Math.min(0, below)), residual('high', Math.max(0, above))];
  return { error: worst(residuals), span, reached, residuals, margin: hi - lo };
}

/** `within` at its widest: the whole of its range. */
const widest = (t: Extract<Target, { high: unknown }>): Extract<Target, { high: unknown }> =>
  t.want === 'within' ? { ...t, want: 'range' } : t;

function spanError(t: Extract<Target, { want: 'span' }>, setting: Setting, m: GraphModule, place: Place): TargetError {
  const reached = reachedAt(setting, m, place, t);
  const [lo, hi] = reached;
  const [low, high] = spanEnds(t, m, place, reached);
  const width = residual('width', hi - lo - (high - low));
  const centre = residual('centre', t.centre === null ? 0 : (hi + lo - high - low) / 2);
  const residuals = [width, centre, ...beyond(m, place, t.quantity, [t.centre])];
  return { error: worst(residuals), span: high - low, reached, residuals };
}

const isPlain = (x: Affine): boolean => x.atoms.every((atom) => atom.op === 'leaf');

/** Of a sum that must not move: what each source moves it by, else its span. */
function stillness(x: Affine, span: number): Residual[] {
  if (!isPlain(x)) return [residual('span', span)];
  return x.atoms.map((atom, i) => residual(String(atom.id), ((x.ks[i] as number) * (atom.hi - atom.lo)) / 2));
}

function tiedError(t: Extract<Target, { to: string }>, setting: Setting, place: Place): TargetError {
  const other = placeOf(setting.graph, t.to);
  const [a, b] = [setting.value(place), other ? setting.value(other) : setting.value(place)];
  const sum = add(a, b, t.want === 'opposite' ? 1 : -1);
  const [lo, hi] = setting.range(sum);
  const [reached, there] = [setting.range(a), setting.range(b)];
  const spans = [reached[1] - reached[0], there[1] - there[0]];
  const lacking = spans.map((s) => Math.max(0, LEAST_SPAN - s));
  const residuals = [
    ...stillness(sum, hi - lo),
    ...lacking.map((volts, i): Residual => ({ name: `lacks ${i}`, volts, required: true })),
  ];
  return { error: Math.max(hi - lo, ...lacking), span: Math.max(...spans), reached, residuals };
}

/** Asks for more than a target does, to come as far inside it as can be. */
export interface Aim {
  /** Volts of margin that are asked for: at steps, or the whole range of `within`. */
  readonly margin?: number;
}

/** How far a setting is from what a target asks for; null where its socket is not there. */
export function errorOf(target: Target, setting: Setting, aim: Aim = {}): TargetError | null {
  const place = placeOfTarget(setting.graph, target);
  const m = place && setting.graph.modules[place.module];
  if (!m) return null;
  switch (target.want) {
    case undefined:
    case 'range':
    case 'within':
      if (target.quantity === 'level') return setting.traceError(target, m, place);
      return rangeError(aim.margin === undefined ? target : widest(target), setting, m, place);
    case 'span':
      return spanError(target, setting, m, place);
    case 'opposite':
    case 'same':
      return tiedError(target, setting, place);
    default:
      return setting.traceError(target, m, place, aim.margin);
  }
}

const TRACED: readonly Target['want'][] = ['mean', 'steps', 'duty', 'fall', 'dip', 'arrive', 'like'];

/** Whether its error can only be told by running the patch, whatever patch it is. */
const isTraced = (t: Target): boolean => TRACED.includes(t.want) || ('quantity' in t && t.quantity === 'level');

const isOfArrival = (t: Target): boolean => 'basis' in t && t.basis === 'arrives';

/** Whether there is a patch in which its error can only be told by running it. */
export const mayNeedTrace = (t: Target): boolean => isTraced(t) || isOfArrival(t);

/** Whether its error can only be told by running the patch: of what arrives, where something upstream remembers. */
export function needsTrace(graph: Graph, t: Target): boolean {
  if (isTraced(t) || !isOfArrival(t)) return isTraced(t);
  const place = placeOfTarget(graph, t);
  return place !== null && upstreamOfPlace(graph, place, memoryIn(graph)).memory;
}
