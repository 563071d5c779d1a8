import type { Patch } from '../document/types';
import { applyEdits } from '../edit/edit';
import type { Edit } from '../edit/edit';
import type { Draws } from './draws';
import { Seen } from './seen';
import type { Choice, Drawn, Slip } from './types';

/** Points of a trace that is chosen from. */
const POINTS = 240;
/** How many are chosen from. */
const CHOICES = 4;
/** Two traces look alike where they differ by less, root mean square, as a share of the greatest span among them. */
const ALIKE = 0.08;
const NAMES = ['A', 'B', 'C', 'D', 'E', 'F'];

/** A wrong trace: the mistake that gives it, and the edits that make the patch that it is of. */
export interface WrongTrace {
  readonly text: string;
  readonly edits: readonly Edit[];
}

function traceOf(patch: Patch, at: string): number[] {
  const whole = new Seen(patch, { traces: [at] }).trace(at);
  return Array.from({ length: POINTS }, (_, i) => whole[Math.floor((i * whole.length) / POINTS)] ?? 0);
}

const spanOf = (trace: readonly number[]): number => Math.max(...trace) - Math.min(...trace);

const apart = (a: readonly number[], b: readonly number[]): number =>
  Math.sqrt(a.reduce((sum, v, i) => sum + (v - (b[i] as number)) ** 2, 0) / a.length);

/** What differs visibly from all before it. */
function distinct(list: readonly (WrongTrace & { readonly trace: readonly number[] })[], right: readonly number[]) {
  const most = Math.max(spanOf(right), ...list.map((w) => spanOf(w.trace)));
  const kept: (WrongTrace & { readonly trace: readonly number[] })[] = [];
  for (const w of list)
    if ([right, ...kept.map((k) => k.trace)].every((t) => apart(t, w.trace) > ALIKE * most)) kept.push(w);
  return kept;
}

/**
 * The voltage at a socket among others that mistakes would give, in a drawn order.
 *
 * @returns null where fewer than four of them look different, or nothing moves.
 */
export function tracesToChoose(
  d: Draws,
  patch: Patch,
  at: string,
  wrong: readonly WrongTrace[],
): Pick<Drawn, 'patch' | 'at' | 'answer' | 'choices' | 'truth' | 'slips'> | null {
  const right = traceOf(patch, at);
  if (spanOf(right) < 0.2) return null;
  const others = distinct(
    wrong.map((w) => ({ ...w, trace: traceOf(applyEdits(patch, w.edits), at) })),
    right,
  ).slice(0, CHOICES - 1);
  if (others.length < CHOICES - 1) return null;
  const order = d.shuffled([{ text: null, trace: right }, ...others]);
  const choices = order.map(({ trace }, i): Choice => ({ text: NAMES[i] ?? '', trace }));
  const slips = order.flatMap(({ text }, i): Slip[] => (text === null ? [] : [{ text, as: () => ({ choice: i }) }]));
  const choice = order.findIndex((o) => o.text === null);
  return { patch, at, answer: 'choice', choices, truth: () => ({ choice }), slips };
}
