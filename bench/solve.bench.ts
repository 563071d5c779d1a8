import { tolerance } from '../core/answers/tolerance';
import type { Patch, Target } from '../core/document/types';
import { solve } from '../core/solve/solve';
import { patchOf } from '../core/testing/patch';
import { row } from './figures';

/** How soon the knobs answer a moving handle, how long a whole answer takes, and draws a second. Figures, no verdict. */

/** Eight stages in a row with twelve knobs. */
function chain(memory: boolean): Patch {
  const knobs = [
    'offset',
    'attenuverter',
    'offset',
    'attenuator',
    'offset',
    'attenuverter',
    'attenuator',
    'offset',
  ] as const;
  const parts: Record<string, readonly [string, Record<string, number>?]> = { swell: ['lfo'] };
  const cables: string[] = [];
  let from = 'swell.out';
  knobs.forEach((kind, i) => {
    const id = memory && i === 3 ? 'lag' : `s${i}`;
    parts[id] = id === 'lag' ? ['slew', { rise: 0.2, fall: 0.2 }] : [kind, { amount: 0.9 }];
    cables.push(`${from} > ${id}.in`);
    from = `${id}.out`;
  });
  parts.tone = ['filter', { cutoffHz: 300 }];
  cables.push(`${from} > tone.cutoff`);
  return patchOf(parts, cables, { duration: 2 });
}

const FREE = Array.from({ length: 8 }, (_, i) => `s${i}`).flatMap((id) => [`${id}.amount`, `${id}.volts`]);

/** A handle dragged in 200 steps: each asks with the knobs of the answer before. */
function drag(patch: Patch, high: (k: number) => number): number[] {
  let prefer: readonly string[] = [];
  const free = FREE.filter((name) => patch.modules.some((m) => name.startsWith(`${m.id}.`)));
  const named = free.filter(
    (name) => !name.endsWith('volts') || patch.modules.some((m) => m.kind === 'offset' && name.startsWith(m.id)),
  );
  return Array.from({ length: 200 }, (_, k) => {
    const target: Target = { at: 'tone.cutoff', quantity: 'frequency', low: 120, high: high(k) };
    const start = performance.now();
    const answer = solve({ ...patch, targets: [target] }, { live: true, prefer, free: named.slice(0, 12) });
    const best = answer.solutions[0] ?? answer.nearest;
    if (best && best.settings.length > 0) prefer = best.settings.map((s) => s.at);
    return performance.now() - start;
  });
}

const tell = (label: string, times: readonly number[]): void => console.log(`${label}, ms: ${row(times)}`);

for (const memory of [false, true]) {
  const patch = chain(memory);
  const name = memory ? 'seven stages and a lag' : 'eight stages, 12 knobs';
  drag(patch, (k) => 800 + 8 * k);
  tell(
    `${name}: within reach`,
    drag(patch, (k) => 800 + 8 * k),
  );
  tell(
    `${name}: out of reach`,
    drag(patch, (k) => 15_000 + 20 * k),
  );
}
const whole = Array.from({ length: 12 }, (_, k) => {
  const start = performance.now();
  solve({ ...chain(false), targets: [{ at: 'tone.cutoff', quantity: 'frequency', low: 120, high: 900 + 100 * k }] });
  return performance.now() - start;
});
tell('a whole answer, five solutions with spread', whole);
const rack = chain(false);
tolerance(rack, { draws: 500 });
const start = performance.now();
tolerance(rack, { draws: 4000 });
console.log(`tolerance of 10 modules: ${(4000 / ((performance.now() - start) / 1000)).toFixed(0)} draws a second`);
