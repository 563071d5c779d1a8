import type { EndSpec } from '../kinds/kind';
import type { ParamValues } from '../kinds/params';
import type { Passed } from '../bounds/entries';
import type { Range } from '../law/affine';

/** Where nothing bounds it, volts. */
const REACH = 60;

/** What was worked out for a destination at settings that are still in use; settings are never changed in place. */
const drives = new WeakMap<ParamValues, Map<EndSpec<ParamValues>, Map<number, number>>>();
/** How many figures are kept for each. */
const KEPT = 64;

/**
 * The drive voltage that gives a destination's figure, by halving its window; figures rise with their drive, of a gain
 * that is the same either way from 0 V on.
 *
 * @param figure in the destination's own unit.
 * @returns volts, to 1e-9; the window's nearer end where the figure lies beyond it.
 */
export function driveFor(spec: EndSpec<ParamValues>, params: ParamValues, figure: number): number {
  // A note is its own voltage; halving would end on the edge between two.
  if (spec.quantity === 'note' || spec.quantity === 'volts') return figure;
  let ofParams = drives.get(params);
  if (!ofParams) drives.set(params, (ofParams = new Map()));
  let ofEnd = ofParams.get(spec);
  if (!ofEnd || ofEnd.size >= KEPT) ofParams.set(spec, (ofEnd = new Map()));
  const known = ofEnd.get(figure);
  if (known !== undefined) return known;
  const drive = halved(spec, params, figure);
  ofEnd.set(figure, drive);
  return drive;
}

function halved(spec: EndSpec<ParamValues>, params: ParamValues, figure: number): number {
  const [from, to] = spec.window(params) ?? [-REACH, REACH];
  let [low, high] = [spec.span ? Math.max(0, from) : from, to];
  for (let i = 0; i < 80; i++) {
    const middle = (low + high) / 2;
    if (middle === low || middle === high) break;
    if ((spec.value(params, middle) ?? -Infinity) < figure) low = middle;
    else high = middle;
  }
  return Math.abs(low) < 1e-15 ? 0 : (low + high) / 2;
}

/** Whether the destination can read that figure at all. */
export function canRead(spec: EndSpec<ParamValues>, params: ParamValues, figure: number): boolean {
  if (spec.quantity === 'note' || spec.quantity === 'volts') return true;
  const read = spec.value(params, driveFor(spec, params, figure));
  return read !== null && Math.abs(read - figure) <= 1e-6 * Math.max(1e-3, Math.abs(figure));
}

/** The lowest and the highest figure of a drive; silence is the lowest and null. */
export function figuresOf(
  spec: EndSpec<ParamValues>,
  params: ParamValues,
  [lo, hi]: Range,
): readonly [number | null, number | null] {
  const [a, b] = (spec.span?.(params, lo, hi) ?? [lo, hi]).map((v) => spec.value(params, v)) as [
    number | null,
    number | null,
  ];
  return (a ?? -Infinity) <= (b ?? -Infinity) ? [a, b] : [b, a];
}

/**
 * The lowest and the highest figure of a destination over all that hands turn its knobs to. A gain that changes its sign
 * on the way from one setting to another is silent in between.
 */
export function figureHull(
  spec: EndSpec<ParamValues>,
  passed: readonly Passed[],
): readonly [number | null, number | null] {
  const spans = passed.map((p) => figuresOf(spec, p.params, p.drive));
  const order = (x: number | null): number => x ?? -Infinity;
  const least = spans.reduce<number | null>((a, [low]) => (order(low) < order(a) ? low : a), spans[0]?.[0] ?? null);
  const most = spans.reduce<number | null>((a, [, high]) => (order(high) > order(a) ? high : a), spans[0]?.[1] ?? null);
  const signs = new Set(passed.flatMap((p) => p.drive.map((v) => Math.sign(spec.signed?.(p.params, v) ?? 1))));
  return [signs.size > 1 ? null : least, most];
}
