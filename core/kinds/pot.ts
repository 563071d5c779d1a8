import type { Passive } from './traits';

type Pot = Extract<Passive, { readonly is: 'pot' }>;

/** Two resistances side by side, ohms; `Infinity` for none. */
export const parallel = (a: number, b: number): number =>
  a === Infinity ? b : b === Infinity ? a : a === 0 || b === 0 ? 0 : (a * b) / (a + b);

/** What a passive pot leaves of its input at its output, 0..1. @param load ohms; null for an ideal one. */
export function potGain({ ohms, position, reversed }: Omit<Pot, 'is'>, load: number | null): number {
  if (load === null) return position;
  const [above, below] = [(1 - position) * ohms, position * ohms];
  if (reversed) return load === Infinity || above === 0 ? 1 : load / (above + load);
  const under = parallel(below, load);
  // Full up there is no resistance in series, and the output is its input.
  return under === 0 ? 0 : above === 0 ? 1 : under / (above + under);
}
