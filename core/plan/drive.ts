import type { EndSpec } from '../kinds/kind';
import type { ParamValues } from '../kinds/params';

/** Where nothing bounds it, volts. */
const REACH = [0, 12] as const;

/**
 * The drive voltage that gives a destination's figure, by halving its window; figures rise with their drive.
 *
 * @param figure in the destination's own unit.
 * @returns volts, to 1e-9; the window's nearer end where the figure lies beyond it.
 */
export function driveFor(spec: EndSpec<ParamValues>, params: ParamValues, figure: number): number {
  let [low, high] = spec.window(params) ?? REACH;
  for (let i = 0; i < 60; i++) {
    const middle = (low + high) / 2;
    if ((spec.value(params, middle) ?? -Infinity) < figure) low = middle;
    else high = middle;
  }
  return (low + high) / 2;
}
