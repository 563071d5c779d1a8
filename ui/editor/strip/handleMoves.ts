import { countsOctaves } from '@/core';
import type { EndSpec, ParamValues, Target } from '@/core';
import { isBracket, wantedDrives } from './frames';
import type { Bracket, EndView } from './frames';

export type End = 'low' | 'high';

/** As many digits as a hand means. */
const rounded = (figure: number): number => Number(figure.toPrecision(4)) || 0;

/** A step of the keys, in drive volts. */
const STEP = 0.05;

function figureAt(t: Bracket, spec: EndSpec<ParamValues> | null, params: ParamValues, volts: number): number | null {
  return t.quantity === 'volts' || !spec ? volts : spec.value(params, volts);
}

/** A target with one of its ends at a drive; the other stays, and is never crossed. */
export function movedTo({ target, spec, params, wanted, window }: EndView, end: End, volts: number): Target {
  if (!target || !wanted) throw new Error('no target there');
  const [low, high] = wanted;
  const [least, most] = target.quantity === 'volts' ? [-24, 24] : (window ?? [-24, 24]);
  const [floor, ceiling] = end === 'low' ? [least, high ?? most] : [low ?? least, most];
  const at = Math.min(ceiling, Math.max(floor, volts));
  const figure = figureAt(target, spec, params, at);
  if ('low' in target) {
    if (figure === null)
      return { ...target, ...(end === 'low' && target.want !== 'within' && { low: 'silent' }) } as Target;
    return { ...target, [end]: rounded(figure) };
  }
  return target.want === 'span' ? spanned(target, end, figure ?? 0, params, spec) : target;
}

/** A span whose other end stays: it is wider and its centre moves. */
function spanned(
  t: Extract<Bracket, { readonly want: 'span' }>,
  end: End,
  figure: number,
  params: ParamValues,
  spec: EndSpec<ParamValues> | null,
): Target {
  const [low, high] = wantedDrives(t, spec, params).map((v) => figureAt(t, spec, params, v ?? 0) ?? 0) as [
    number,
    number,
  ];
  const [from, to] = end === 'low' ? [figure, high] : [low, figure];
  const wide = countsOctaves(t.quantity) ? Math.log2(to / from) : to - from;
  const centre = countsOctaves(t.quantity) ? Math.sqrt(from * to) : (from + to) / 2;
  return { ...t, span: rounded(Math.max(0, wide)), centre: rounded(centre) };
}

/** An end with another target at it. */
export const endWith = (end: EndView, target: Target): EndView =>
  isBracket(target) ? { ...end, target, wanted: wantedDrives(target, end.spec, end.params) } : end;

/** The same by a number of key steps. */
export function nudged(end: EndView, which: End, steps: number): Target {
  const volts = end.wanted?.[which === 'low' ? 0 : 1] ?? 0;
  return movedTo(end, which, volts + steps * STEP);
}
