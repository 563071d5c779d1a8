import { tolerance } from '../core/answers/tolerance';
import type { Patch, Target } from '../core/document/types';
import { applyEdits } from '../core/edit/edit';
import { solve } from '../core/solve/solve';
import { editsOf } from '../core/solve/types';
import { patchOf } from '../core/testing/patch';
import { row } from './figures';
import { Section } from './section';

/** How soon the knobs answer a moving handle, how long a whole answer takes, and draws a second. Figures, no verdict. */

const STAGES = [
  'offset',
  'attenuverter',
  'offset',
  'attenuator',
  'offset',
  'attenuverter',
  'attenuator',
  'offset',
  'offset',
  'attenuverter',
] as const;

/** So many stages in a row; of eight twelve knobs. */
function chain(memory: boolean, stages = 8): Patch {
  const parts: Record<string, readonly [string, Record<string, number>?]> = { swell: ['lfo'] };
  const cables: string[] = [];
  let from = 'swell.out';
  STAGES.slice(0, stages).forEach((kind, i) => {
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

const section = new Section(
  'solve',
  'Solving',
  '`npm run bench -- solve`, milliseconds; the worst is the first, cold.',
);
const tell = (label: string, times: readonly number[], goal = ''): void => section.add(label, row(times), goal);

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
/** A contour through a lag to an amplifier. */
const struck = patchOf(
  {
    beat: ['clock', { bpm: 60, width: 0.1 }],
    env: ['envelope', { mode: 'ad', attack: 0.01, decay: 0.4, peakVolts: 5 }],
    trim: ['attenuator', { amount: 0.9 }],
    lag: ['slew', { law: 'rc', rise: 0.01, fall: 0.1 }],
    voice: ['oscillator'],
    amp: ['vca'],
  },
  ['beat.out > env.gate', 'env.out > trim.in', 'trim.out > lag.in', 'lag.out > amp.cv', 'voice.saw > amp.in'],
  { duration: 8 },
);

/** What only a run tells, held while another knob turns: the knobs that are left follow. */
const HELD: readonly {
  readonly name: string;
  readonly patch: Patch;
  readonly target: Target;
  readonly turned: string;
}[] = [
  {
    name: 'mean behind a lag, 8 s of slow voltages',
    patch: patchOf(
      {
        swell: ['lfo', { shape: 'pulse', rateHz: 0.7 }],
        lag: ['slew', { law: 'rc', rise: 0.4, fall: 1.2 }],
        trim: ['offset', { amount: 0.5 }],
        tone: ['filter'],
      },
      ['swell.out > lag.in', 'lag.out > trim.in', 'trim.out > tone.cutoff'],
      { duration: 8 },
    ),
    target: { at: 'tone.cutoff', want: 'mean', quantity: 'volts', value: 1 },
    turned: 'lag.fall',
  },
  {
    name: 'duty of a gate, 8 s',
    patch: patchOf(
      { swell: ['lfo', { rateHz: 1 }], lift: ['offset', { amount: 0.8, volts: 1 }], env: ['envelope'] },
      ['swell.out > lift.in', 'lift.out > env.gate'],
      { duration: 8 },
    ),
    target: { at: 'env.gate', want: 'duty', percent: 30 },
    turned: 'lift.amount',
  },
  {
    name: 'on at steps, 8 s',
    patch: patchOf(
      {
        beat: ['clock', { bpm: 120 }],
        row: ['sequencer', { steps: [5, 1, 3, 1].map((volts) => ({ volts, gate: true, tie: false })) } as never],
        lift: ['offset', { amount: 0.5 }],
        env: ['envelope'],
      },
      ['beat.out > row.clock', 'row.cv > lift.in', 'lift.out > env.gate'],
      { duration: 8 },
    ),
    target: { at: 'env.gate', want: 'steps', of: 'row', steps: [0, 2] },
    turned: 'lift.amount',
  },
  {
    name: 'fall of an amplifier, 8 s',
    patch: struck,
    target: { at: 'amp.cv', want: 'fall', db: 20, seconds: 0.3 },
    turned: 'trim.amount',
  },
  {
    name: 'a fall that no knob of it gives, 8 s',
    patch: struck,
    target: { at: 'amp.cv', want: 'fall', db: 20, seconds: 0.45 },
    turned: 'trim.amount',
  },
  {
    name: 'like a triangle, 4 s',
    patch: patchOf(
      {
        swell: ['lfo', { shape: 'pulse', rateHz: 1 }],
        lag: ['slew', { rise: 0.5, fall: 0.5 }],
        trim: ['attenuverter', { amount: 0.8 }],
        tone: ['filter'],
      },
      ['swell.out > lag.in', 'lag.out > trim.in', 'trim.out > tone.cutoff'],
      { duration: 4 },
    ),
    target: { at: 'tone.cutoff', want: 'like', shape: 'triangle', least: 1 },
    turned: 'trim.amount',
  },
];

for (const { name, patch, target, turned } of HELD) {
  const [id, param] = turned.split('.') as [string, string];
  const wanted = { ...patch, targets: [target] };
  const first = solve(wanted, { plain: true }).solutions[0];
  const begun = first ? applyEdits(wanted, editsOf(first)) : wanted;
  const m = begun.modules.find((x) => x.id === id);
  let prefer: readonly string[] = [];
  let met = 0;
  const times = Array.from({ length: 40 }, (_, k) => {
    const value = Number(m?.params?.[param]) * (1 + 0.004 * k);
    const now = applyEdits(begun, [{ do: 'set', module: id, param, value }]);
    const start = performance.now();
    const answer = solve(now, { live: true, held: [turned], prefer });
    const best = answer.solutions[0] ?? answer.nearest;
    if (best && best.settings.length > 0) prefer = best.settings.map((s) => s.at);
    if (answer.feasible) met++;
    return performance.now() - start;
  });
  tell(`held: ${name}${first ? '' : ' (not met at first)'}, ${met} of 40 met`, times);
}

const whole = Array.from({ length: 40 }, (_, k) => {
  const start = performance.now();
  solve({ ...chain(false), targets: [{ at: 'tone.cutoff', quantity: 'frequency', low: 120, high: 900 + 30 * k }] });
  return performance.now() - start;
});
tell('a whole answer, five solutions with spread', whole, 'p95 300');
const twelve = chain(false, 10);
tolerance(twelve, { draws: 500 });
const start = performance.now();
tolerance(twelve, { draws: 20_000 });
const each = (performance.now() - start) / 20_000;
section.add(
  `tolerance of ${twelve.modules.length} memoryless modules`,
  `${(1000 / each).toFixed(0)} draws a second`,
  '20 000',
);
section.write();
