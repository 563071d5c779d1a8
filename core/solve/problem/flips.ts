import type { Look, Problem } from './problem';

/** Whether a knob scales what comes in at an input. */
function isAmount({ trials }: Problem, index: number): boolean {
  const knob = trials.knobs[index];
  const m = knob && trials.modules[knob.module];
  if (!m) return false;
  return (
    m.inputs.some((s) => s.spec.amount === knob.param) ||
    (m.kind.panel?.scaledBy?.(m.params) ?? []).includes(knob.param)
  );
}

/** The amounts whose sign an answer changes, by name. */
export function flippedAmounts(problem: Problem, { x }: Look): string[] {
  const { knobs, start } = problem.trials;
  const flipped = knobs.filter(({ travel }, i) => {
    const zero = travel.taper === 'linear' && travel.min < 0 ? -travel.min / (travel.max - travel.min) : null;
    if (zero === null || !isAmount(problem, i)) return false;
    const [before, after] = [(start[i] as number) - zero, (x[i] as number) - zero];
    return before * after < 0;
  });
  return flipped.map((k) => k.name);
}
