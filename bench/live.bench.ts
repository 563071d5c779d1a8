import { applyEdits } from '../core/edit/edit';
import { LIVE_BLOCK, LiveEngine } from '../core/live/engine';
import { graphAt, Player } from '../core/live/player';
import { render } from '../core/live/render';
import { patchOf } from '../core/testing/patch';
import type { Patch } from '../core/document/types';
import { Section } from './section';

/** How much of one core a live patch takes, how long an edit takes, and how fast a rendering is. Figures, no verdict. */

const RATE = 48_000;

/** Voices of oscillator, filter, amplifier, and what moves them: 12 modules each. */
function voices(count: number): Patch {
  const parts: Record<string, readonly [string, Record<string, never> | object]> = {};
  const cables: string[] = [];
  for (let v = 0; v < count; v++) {
    const id = (name: string): string => `${name}${v}`;
    Object.assign(parts, {
      [id('beat')]: ['clock', { bpm: 90 + v }],
      [id('seq')]: ['sequencer', {}],
      [id('slide')]: ['slew', { rise: 0.05, fall: 0.05 }],
      [id('osc')]: ['oscillator', { baseHz: 110 * (1 + v) }],
      [id('slow')]: ['lfo', { rateHz: 0.3 + v / 10 }],
      [id('trim')]: ['offset', { amount: 0.4, volts: 2 }],
      [id('tone')]: ['filter', { cutoffHz: 300 }],
      [id('env')]: ['envelope', { mode: 'ad', decay: 0.3 }],
      [id('amp')]: ['vca', { cvAmount: 0.6 }],
      [id('fold')]: ['shaper', { gain: 2, clipVolts: 5 }],
      [id('level')]: ['attenuator', { amount: 0.5 }],
      [id('pan')]: ['crossfade', {}],
    });
    cables.push(
      `${id('beat')}.out > ${id('seq')}.clock`,
      `${id('beat')}.out > ${id('env')}.gate`,
      `${id('seq')}.cv > ${id('slide')}.in`,
      `${id('slide')}.out > ${id('osc')}.pitch`,
      `${id('osc')}.saw > ${id('fold')}.in`,
      `${id('fold')}.out > ${id('tone')}.in`,
      `${id('slow')}.out > ${id('trim')}.in`,
      `${id('trim')}.out > ${id('tone')}.cutoff`,
      `${id('tone')}.lowpass > ${id('amp')}.in`,
      `${id('env')}.out > ${id('amp')}.cv`,
      `${id('amp')}.out > ${id('level')}.in`,
      `${id('level')}.out > ${id('pan')}.in`,
    );
  }
  return patchOf(parts as Parameters<typeof patchOf>[0], cables);
}

const percentile = (sorted: readonly number[], p: number): number => sorted[Math.floor(p * (sorted.length - 1))] ?? 0;

/** Share of the time that there is, and the longest block, of a patch that plays for some seconds. */
function share(
  patch: Patch,
  seconds: number,
  turn: ((k: number) => Patch) | null,
): { mean: number; p99: number; most: number } {
  const ears = { left: 'pan0.a', right: 'pan0.b', gain: 1 };
  const player = new Player(patch, RATE, ears);
  const [left, right] = [new Float32Array(LIVE_BLOCK), new Float32Array(LIVE_BLOCK)];
  const budget = (1000 * LIVE_BLOCK) / RATE;
  const blocks = Math.round((seconds * RATE) / LIVE_BLOCK);
  const times: number[] = [];
  for (let b = 0; b < blocks; b++) {
    const start = performance.now();
    // A hand that drags sends some sixty edits a second.
    if (turn && b % 6 === 0) player.edit(turn(b), ears);
    player.next(left, right, LIVE_BLOCK);
    times.push(performance.now() - start);
  }
  const sorted = times.slice(50).toSorted((a, b) => a - b);
  const mean = sorted.reduce((a, b) => a + b, 0) / sorted.length;
  return { mean: mean / budget, p99: percentile(sorted, 0.99) / budget, most: (sorted.at(-1) ?? 0) / budget };
}

const section = new Section('live', 'Live engine', '`npm run bench -- live`; percent of the time that a block lasts.');
const percent = (x: number): string => `${(100 * x).toFixed(1)} %`;

for (const count of [2, 4, 8]) {
  const patch = voices(count);
  const modules = patch.modules.length;
  const still = share(patch, 10, null);
  section.add(
    `${modules} modules, share of one core`,
    `mean ${percent(still.mean)}, p99 ${percent(still.p99)}, most ${percent(still.most)}`,
  );
  const turned = share(patch, 10, (b) =>
    applyEdits(patch, [{ do: 'set', module: 'trim0', param: 'amount', value: 0.4 + 0.3 * Math.sin(b / 50) }]),
  );
  section.add(
    `${modules} modules, a knob dragged`,
    `mean ${percent(turned.mean)}, p99 ${percent(turned.p99)}, most ${percent(turned.most)}`,
    modules === 24 ? 'p99 60 %' : '',
  );
}

const patch = voices(2);
const engine = new LiveEngine(graphAt(patch, RATE));
engine.advance();
const knob = (k: number): Patch =>
  applyEdits(patch, [{ do: 'set', module: 'tone0', param: 'cutoffHz', value: 300 + k }]);
const cable = (k: number): Patch =>
  applyEdits(
    patch,
    k % 2 ? [{ do: 'unplug', to: 'pan0.in' }] : [{ do: 'plug', cable: { from: 'amp0.out', to: 'pan0.in' } }],
  );
for (const [name, edit] of [
  ['a knob', knob],
  ['a cable', cable],
] as const) {
  const times = Array.from({ length: 200 }, (_, k) => {
    const next = edit(k);
    const start = performance.now();
    engine.edit(graphAt(next, RATE));
    engine.advance();
    return performance.now() - start;
  }).toSorted((a, b) => a - b);
  section.add(
    `24 modules, ${name} changed and its first block`,
    `p50 ${percentile(times, 0.5).toFixed(2)} ms, p99 ${percentile(times, 0.99).toFixed(2)} ms`,
  );
}

const began = performance.now();
render(patch, { of: { left: 'pan0.a', right: 'pan0.b', gain: 1 }, seconds: 120, sampleRate: RATE, bits: '24' });
const took = (performance.now() - began) / 1000;
section.add('24 modules, a rendering of 30 minutes', `${(took * 15).toFixed(1)} s (120 s took ${took.toFixed(2)} s)`);
section.write();
