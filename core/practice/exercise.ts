import { applyEdits } from '../edit/edit';
import type { Edit } from '../edit/edit';
import { knobsIn } from '../document/knobs';
import { idOf, nameOf, socketAt } from '../document/sockets';
import { OHMS } from '../document/types';
import type { Patch } from '../document/types';
import { buildGraph } from '../graph/graph';
import { endsOf } from '../graph/strip';
import { modulesUpTo } from '../graph/upstream';
import { distanceOf, HALF } from './distance';
import { Draws } from './draws';
import { METER, stepsOf, stepsTo } from './explainStage';
import type { StageStep } from './explainStage';
import { markFault } from './faultMark';
import { Seen } from './seen';
import { skillNamed } from './skills';
import type { Answer, Drawn, Exercise, KnobValue, Level, Skill, Slip } from './types';

export interface Mark {
  readonly right: boolean;
  /** 0..1 */
  readonly score: number;
  /** In the form of the answer. */
  readonly truth: Answer;
  /** How far the answer is from it, in its own unit; of knobs as a share of their travel, of an order in places. */
  readonly distance: number;
  /** Which known mistake gives just this answer. */
  readonly slip: string | null;
  readonly steps: readonly StageStep[];
}

/** A mistake with what it answers. */
export interface KnownSlip {
  readonly text: string;
  readonly answer: Answer;
}

/** An exercise with what is kept from the learner. */
export interface Worked {
  readonly exercise: Exercise;
  readonly truth: Answer;
  readonly slips: readonly KnownSlip[];
  readonly drawn: Drawn;
  /** What the patch that is right comes to. */
  readonly seen: Seen;
}

/** So many draws until one is a good exercise; no skill of ours needs more than a few dozen. */
const TRIES = 400;

/**
 * An exercise of a skill: the same for the same level and seed.
 *
 * @throws where there is no such skill.
 */
export const exerciseOf = (skill: string, level: Level, seed: number): Exercise => worked(skill, level, seed).exercise;

/** Exercises that were worked out last: one is drawn, read and marked in turn. */
const known = new Map<string, Worked>();
const KNOWN = 16;

/** The same with its truth and the mistakes that are known of it. */
export function worked(name: string, level: Level, seed: number): Worked {
  const key = `${name} ${level} ${seed}`;
  const found = known.get(key) ?? workedAnew(name, level, seed);
  known.delete(key);
  known.set(key, found);
  for (const oldest of known.keys()) if (known.size > KNOWN) known.delete(oldest);
  return found;
}

/** Seeds of worked examples: exercises begin at 1, and never get so far. */
const EXAMPLE_SEEDS = [0, ...Array.from({ length: 20 }, (_, i) => 4_294_967_295 - i)];

/** A worked example of a skill: one with another answer than the first exercise has. */
export function exampleOf(name: string, level: Level): Worked {
  const first = JSON.stringify(worked(name, level, 1).truth);
  const seed = EXAMPLE_SEEDS.find((s) => JSON.stringify(worked(name, level, s).truth) !== first);
  return worked(name, level, seed ?? 0);
}

/** The same, whatever was worked out before. */
export function workedAnew(name: string, level: Level, seed: number): Worked {
  const skill = skillNamed(name);
  if (!skill) throw new Error(`there is no skill ${name}`);
  for (let n = 0; n < TRIES; n++) {
    const found = attempt(skill, level, seed, n);
    if (found) return found;
  }
  throw new Error(`${name}, level ${level}, seed ${seed}: nothing good was drawn`);
}

function attempt(skill: Skill, level: Level, seed: number, n: number): Worked | null {
  const found = skill.draw(new Draws(seed, `${skill.name} ${level} ${n}`), level);
  if (!found) return null;
  const drawn = { ...found, patch: withMeter(found.patch, found.at) };
  const seen = new Seen(drawn.solved ?? drawn.patch);
  const truth = drawn.truth(seen);
  if (!truth) return null;
  const { patch, text, answer, at = null, figure = null, unit, choices = null, knobs = null, hidden = [] } = drawn;
  const ask = {
    text: text.replace(/(?<!\w)-(?=\d)/g, '\u2212'),
    at,
    answer,
    figure: answer === 'range' && figure === null ? null : figure,
    unit: unit ?? (answer === 'range' || answer === 'volts' ? 'V' : ''),
    choices,
    knobs,
    hidden: [...new Set([...(at === null ? [] : [at, ...onTheWay(seen, at), ...fedBy(seen, at)]), ...hidden])],
  };
  const exercise: Exercise = { skill: skill.name, level, seed, patch, ask };
  if (
    'knobs' in truth &&
    !standElsewhere(patch, truth.knobs, (k) => {
      const only = { knobs: truth.knobs.filter((t) => t.at === k.at) };
      return distanceOf(ask, patch, { knobs: [k] }, only).times;
    })
  )
    return null;
  const slips = drawn.slips.flatMap((slip): KnownSlip[] => {
    const given = slipAnswer(drawn, slip, truth, seen);
    // What a mistake does not change is none here.
    return given && distanceOf(ask, patch, given, truth).times > 1 ? [{ text: slip.text, answer: given }] : [];
  });
  if (drawn.slips.length > 0 && slips.length === 0) return null;
  return { exercise, truth, slips, drawn, seen };
}

/** An output that leads nowhere gets a meter, so that its path has an end; it loads nothing. */
function withMeter(patch: Patch, at: string | undefined): Patch {
  const { modules, wiring } = buildGraph(patch);
  const isOutput = modules.some((m) => m.outputs.some((o) => o.socket === at));
  if (at === undefined || !isOutput || wiring.cablesFrom(at).length > 0) return patch;
  return applyEdits(patch, [
    { do: 'add', module: { id: METER, kind: 'mult', label: 'Meter', inputOhms: { in: OHMS.max } } },
    { do: 'plug', cable: { from: at, to: socketAt(METER, 'in') } },
  ]);
}

/** Outputs on the way to a socket, sources aside: what stands there would tell the rest. */
const onTheWay = ({ graph }: Seen, at: string): string[] => {
  const ids = modulesUpTo(graph, at);
  return graph.modules
    .filter((m) => ids.has(m.id) && m.kind.category !== 'source')
    .flatMap((m) => m.outputs.map((o) => o.socket));
};

/** Inputs that an output feeds. */
const fedBy = ({ graph }: Seen, at: string): string[] => graph.wiring.cablesFrom(at).map((c) => c.to);

function slipAnswer(drawn: Drawn, { edits, as }: Slip, truth: Answer, seen: Seen): Answer | null {
  if (as) return as(truth, seen);
  return edits ? drawn.truth(new Seen(applyEdits(drawn.patch, edits))) : null;
}

/**
 * Marks an answer to an exercise.
 *
 * @returns whether it is right, the truth, how far it is off, and which known mistake gives just this answer.
 */
export function markOf({ skill, level, seed }: Pick<Exercise, 'skill' | 'level' | 'seed'>, answer: Answer): Mark {
  const { exercise, truth, slips, drawn, seen } = worked(skill, level, seed);
  const { ask, patch } = exercise;
  const at = ask.at ?? endsOf(seen.graph)[0];
  const steps =
    'order' in truth ? stepsOf(seen, ask.choices ?? [], truth.order) : at === undefined ? [] : stepsTo(seen, at);
  if (drawn.fault) return { ...markFault(exercise, drawn.fault, answer), truth, slip: null, steps };
  const also = 'knobs' in answer ? byEffect(exercise, answer.knobs, seen) : null;
  return markByDistance(ask, patch, answer, { truth, slips, steps, also });
}

interface Known extends Pick<Mark, 'truth' | 'steps'> {
  readonly slips: readonly KnownSlip[];
  /** Another way to be as near. */
  readonly also?: Apart | null;
}

/** A mark by how far an answer is from the truth. */
export function markByDistance(
  ask: Exercise['ask'],
  patch: Patch,
  answer: Answer,
  { truth, slips, steps, also = null }: Known,
): Mark {
  const { off, times } = nearer(distanceOf(ask, patch, answer, truth), also);
  const right = times <= 1;
  const slip = right ? undefined : slips.find((s) => distanceOf(ask, patch, answer, s.answer).times <= 1);
  return { right, score: right ? 1 : times <= HALF ? 0.5 : 0, truth, distance: off, slip: slip?.text ?? null, steps };
}

/** Whether no knob stands where it is right already. */
function standElsewhere(patch: Patch, truths: readonly KnobValue[], timesOff: (k: KnobValue) => number): boolean {
  const knobs = patch.modules.flatMap((m) => knobsIn(m, patch.settings.bpm));
  return truths.every(({ at }) => {
    const knob = knobs.find((k) => k.at === at);
    return knob !== undefined && timesOff({ at, value: knob.value }) > 1;
  });
}

type Apart = ReturnType<typeof distanceOf>;
const nearer = (a: Apart, b: Apart | null): Apart => (b && b.times < a.times ? { ...a, times: b.times } : a);

/** Knobs that give the wanted range are right wherever they stand: a sign may be on either side of an even source. */
function byEffect(
  { ask, patch }: Exercise,
  knobs: readonly { readonly at: string; readonly value: number }[],
  seen: Seen,
): Apart | null {
  const target = patch.targets.find((t) => t.at === ask.at && 'quantity' in t && t.quantity === 'volts');
  if (ask.at === null || !target) return null;
  const edits = knobs.map(({ at, value }): Edit => ({ do: 'set', module: idOf(at), param: nameOf(at), value }));
  const [low, high] = new Seen(applyEdits(patch, edits)).range(ask.at);
  const [lowest, highest] = seen.range(ask.at);
  const range = { ...ask, unit: 'V' };
  return distanceOf(range, patch, { low, high }, { low: lowest, high: highest });
}
