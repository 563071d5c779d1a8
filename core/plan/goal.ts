import { BoundsEngine } from '../bounds/bounds';
import { completeParams } from '../document/params';
import { blank } from '../document/parse';
import type { Cable, ModuleDoc, Patch, Target } from '../document/types';
import { buildGraph } from '../graph/graph';
import { kindNamed } from '../kinds';
import type { ParamValues } from '../kinds/params';
import { readingsOf } from '../answers/readings';
import type { Reading } from '../answers/readings';
import { openedEnd } from './opened';
import { applyEdits } from '../edit/edit';
import { solve } from '../solve/solve';
import { editsOf } from '../solve/types';

/** What moves a goal, each with what it needs to move at all. */
export const goalSources = ['lfo', 'envelope', 'gesture', 'sequencer'] as const;
export type GoalSource = (typeof goalSources)[number];

/** A target without its place: two figures that it moves between or stays inside, or how wide about which middle. */
export type Wish =
  | { readonly want: 'range' | 'within'; readonly low: number; readonly high: number }
  | { readonly want: 'span'; readonly span: number; readonly centre: number };

export interface Goal {
  /** A destination: kind and socket. */
  readonly kind: string;
  readonly socket: string;
  /** What shall come of it there, in the destination's own unit. */
  readonly wish: Wish;
  readonly by: GoalSource;
}

export interface GoalChain {
  readonly patch: Patch;
  readonly reading: Reading;
  /** Whether what is wanted is met. */
  readonly reached: boolean;
  /** The scale and the lift that the chain's one stage is set to. */
  readonly amount: number;
  readonly lift: number;
}

/** What the stage between is built as, the plainest first. */
const BUILDS: readonly ParamValues[] = [{}, { maxAmount: 2 }, { maxAmount: 4, lowVolts: -12, highVolts: 12 }];

interface Moved {
  readonly modules: readonly ModuleDoc[];
  readonly cables: readonly Cable[];
  readonly output: string;
}

const clock: ModuleDoc = { id: 'clock', kind: 'clock', label: 'Clock', params: { beats: 2 } };

function sourceOf(by: GoalSource): Moved {
  switch (by) {
    case 'lfo':
      return {
        modules: [{ id: 'mover', kind: 'lfo', label: 'Slow oscillator', params: { rateHz: 0.25 } }],
        cables: [],
        output: 'mover.out',
      };
    case 'envelope':
      return {
        modules: [clock, { id: 'mover', kind: 'envelope', label: 'Envelope', params: { attack: 0.05 } }],
        cables: [{ from: 'clock.out', to: 'mover.gate' }],
        output: 'mover.out',
      };
    case 'gesture': {
      const points = [0, 2, 4, 8].map((t, i) => ({ t, volts: [0, 5, 5, 0][i] as number }));
      return {
        modules: [{ id: 'mover', kind: 'gesture', label: 'Hand on a fader', params: { points } }],
        cables: [],
        output: 'mover.out',
      };
    }
    case 'sequencer': {
      const steps = [0, 2, 5, 3].map((volts) => ({ volts, gate: true, tie: false }));
      return {
        modules: [clock, { id: 'mover', kind: 'sequencer', label: 'Sequence', params: { steps } }],
        cables: [{ from: 'clock.out', to: 'mover.clock' }],
        output: 'mover.cv',
      };
    }
  }
}

/** Something to be heard through a destination that lets sound pass. */
function voiceFor({ kind: kindName, socket }: Goal): Omit<Moved, 'output'> {
  const kind = kindNamed(kindName);
  const input = kind?.inputs(completeParams(kind)).find((s) => s.role === 'signal');
  if (!kind || !input || input.name === socket || kind.room !== 'between') return { modules: [], cables: [] };
  return {
    modules: [{ id: 'voice', kind: 'oscillator', label: 'Voice' }],
    cables: [{ from: 'voice.saw', to: `end.${input.name}` }],
  };
}

function patchOf(goal: Goal, end: ModuleDoc, stage: ModuleDoc | null, unit: string): Patch {
  const source = sourceOf(goal.by);
  const voice = voiceFor(goal);
  const at = `end.${goal.socket}`;
  const chain: Cable[] = stage
    ? [
        { from: source.output, to: 'trim.in' },
        { from: 'trim.out', to: at },
      ]
    : [{ from: source.output, to: at }];
  const quantity = kindNamed(goal.kind)?.ends?.find((e) => e.socket === goal.socket)?.quantity ?? 'volts';
  return {
    ...blank,
    name: `${end.label ?? goal.kind}, ${goal.socket}: ${told(goal.wish)} ${unit}`.trim(),
    modules: [...source.modules, ...(stage ? [stage] : []), ...voice.modules, end],
    cables: [...source.cables, ...chain, ...voice.cables],
    targets: [targetOf(at, quantity, goal.wish)],
    probes: [{ at: source.output }, { at }],
  };
}

/** A range needs no word of its own. */
const targetOf = (at: string, quantity: string, wish: Wish): Target =>
  wish.want === 'range' ? { at, quantity, low: wish.low, high: wish.high } : { at, quantity, ...wish };

const told = (wish: Wish): string =>
  wish.want === 'span' ? `${wish.span} about ${wish.centre}` : `${wish.low} to ${wish.high}`;

const stageOf = (params: ParamValues): ModuleDoc => ({ id: 'trim', kind: 'offset', label: 'Trim', params });

/** The destination, with the socket's own amount knob opened where it starts shut. */
function endModule({ kind, socket }: Goal): ModuleDoc {
  const params = openedEnd(kind, socket);
  return { id: 'end', kind, label: kindNamed(kind)?.title ?? kind, ...(params && { params }) };
}

/**
 * The simplest chain for a goal: a source, one scale and offset, the destination; its knobs as the solver finds them.
 *
 * @returns null where there is no such destination.
 */
export function chainFor(goal: Goal): GoalChain | null {
  const kind = kindNamed(goal.kind);
  const spec = kind?.ends?.find((e) => e.socket === goal.socket);
  if (!kind || !spec) return null;
  const end = endModule(goal);
  const unit = spec.unit(completeParams(kind, end.params));
  const tries = BUILDS.map((build) => {
    const patch = patchOf(goal, end, stageOf({ ...build, amount: 1 }), unit);
    return { patch, answer: solve(patch, { live: true, free: ['trim.amount', 'trim.volts'] }) };
  });
  const found = tries.find((t) => t.answer.feasible) ?? tries.at(-1);
  const best = found?.answer.solutions[0] ?? found?.answer.nearest;
  return found && best ? chainOf(goal, applyEdits(found.patch, editsOf(best)), found.answer.feasible) : null;
}

function chainOf({ socket }: Goal, patch: Patch, reached: boolean): GoalChain | null {
  const graph = buildGraph(patch);
  const reading = readingsOf(graph, new BoundsEngine().run(graph), null).find((r) => r.at === `end.${socket}`);
  const { amount, volts } = graph.modules.find((m) => m.id === 'trim')?.params ?? {};
  return reading ? { patch, reading, reached, amount: Number(amount), lift: Number(volts) } : null;
}
