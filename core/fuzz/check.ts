import { BoundsEngine } from '../bounds/bounds';
import { parsePatch } from '../document/parse';
import { printPatch } from '../document/print';
import type { Patch } from '../document/types';
import { predict } from '../predict';

/** Seen may leave the bound by no more than rounding, volts. */
const SLACK = 1e-9;

/** What is wrong with the answers to a patch, or null: seen within bound, all finite, the document as it was. */
export function faultOf(patch: Patch): string | null {
  const printed = JSON.parse(JSON.stringify(printPatch(patch))) as unknown;
  const parsed = parsePatch(printed);
  if (!parsed.ok) return `refused: ${parsed.errors.map((e) => `${e.path}: ${e.message}`).join('; ')}`;
  const again = JSON.stringify(printPatch(parsed.value));
  if (again !== JSON.stringify(printed)) return `printed otherwise: ${again}`;
  const { outputs, inputs } = predict(parsed.value, { engine: new BoundsEngine() });
  for (const [socket, p] of [...Object.entries(outputs), ...Object.entries(inputs)]) {
    const [lo, hi] = p.bound;
    const [least, most] = p.seen ?? [NaN, NaN];
    if (![lo, hi, least, most, p.mean, p.rms].every(Number.isFinite))
      return `${socket}: not finite: ${JSON.stringify(p)}`;
    if (least < lo - SLACK || most > hi + SLACK) return `${socket}: seen ${least} … ${most} outside ${lo} … ${hi}`;
  }
  return null;
}
