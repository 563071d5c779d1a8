import { BoundsEngine } from '../bounds/bounds';
import { completeParams } from '../document/params';
import { blank } from '../document/parse';
import type { Cable, ModuleDoc, Patch } from '../document/types';
import { buildGraph } from '../graph/graph';
import { kindNamed } from '../kinds';
import type { EndSpec } from '../kinds/kind';
import type { ParamValues } from '../kinds/params';
import { readingsOf } from '../answers/readings';
import type { Reading } from '../answers/readings';
import { driveFor } from '../solve/drive';

/** What moves a goal, each with what it needs to move at all. */
export const goalSources = ['lfo', 'envelope', 'gesture', 'sequencer'] as const;
export type GoalSource = (typeof goalSources)[number];

export interface Goal {
  /** A destination: kind and socket. */
  readonly kind: string;
  readonly socket: string;
  /** Between which figures, in the destination's own unit. */
  readonly low: number;
  readonly high: number;
  readonly by: GoalSource;
}

export interface GoalChain {
  readonly patch: Patch;
  readonly reading: Reading;
  /** Whether the reading is what was wanted, to a thousandth of the span. */
  readonly reached: boolean;
  /** The scale and the lift that the chain's one stage is set to. */
  readonly amount: number;
  readonly lift: number;
}

/** Scale and lift of the stage between, at most. */
const AMOUNTS = [1, 2, 4] as const;
const REACH = 12;

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
    name: `${end.label ?? goal.kind}, ${goal.socket}: ${goal.low} to ${goal.high} ${unit}`.trim(),
    modules: [...source.modules, ...(stage ? [stage] : []), ...voice.modules, end],
    cables: [...source.cables, ...chain, ...voice.cables],
    targets: [{ at, quantity, low: goal.low, high: goal.high }],
    probes: [{ at: source.output }, { at }],
  };
}

const boundAt = (
  patch: Patch,
  id: string,
): { outputs: readonly (readonly [number, number])[]; drive: readonly [number, number] } => {
  const found = new BoundsEngine().run(buildGraph(patch)).get(id);
  return { outputs: found?.outputs ?? [], drive: found?.ends[0]?.drive ?? [0, 0] };
};

/** The smallest maximum that holds an amount. */
const maximumFor = (amount: number): number => AMOUNTS.find((most) => Math.abs(amount) <= most) ?? 4;

function stageFor(amount: number, lift: number): ModuleDoc {
  const wide = Math.abs(lift) > 5;
  const params = {
    amount,
    volts: lift,
    ...(maximumFor(amount) > 1 && { maxAmount: maximumFor(amount) }),
    ...(wide && { lowVolts: -REACH, highVolts: REACH }),
  };
  return { id: 'trim', kind: 'offset', label: 'Trim', params };
}

/** The destination, with the socket's own amount knob opened where it starts shut. */
function endModule({ kind, socket }: Goal): ModuleDoc {
  const params = openedEnd(kind, socket);
  return { id: 'end', kind, label: kindNamed(kind)?.title ?? kind, ...(params && { params }) };
}

/**
 * What a new destination is set to so that its socket does something: the first amount knob that it waits for, at 1.
 *
 * @returns nothing where the socket works by itself, or never does.
 */
export function openedEnd(kindName: string, socket: string): ModuleDoc['params'] | undefined {
  const kind = kindNamed(kindName);
  const index = kind?.ends?.findIndex((e) => e.socket === socket) ?? -1;
  if (!kind || index < 0) return undefined;
  const knobs = Object.entries(kind.params).filter(
    ([name, spec]) => /amount\d*$/i.test(name) && spec.type === 'number',
  );
  const settings = [undefined, ...knobs.map(([name]) => ({ [name]: 1 }))];
  return settings.find((params) => {
    const end: ModuleDoc = { id: 'end', kind: kindName, ...(params && { params }) };
    return lineOf(socket, end, index)[1] !== 0;
  });
}

/**
 * The simplest chain for a goal: a source, one scale and offset, the destination. The destination's drive is a
 * straight line of what is plugged in, so two voltages tell how much of it is wanted.
 *
 * @returns null where there is no such destination.
 */
export function chainFor(goal: Goal): GoalChain | null {
  const kind = kindNamed(goal.kind);
  const index = kind?.ends?.findIndex((e) => e.socket === goal.socket) ?? -1;
  const spec = kind?.ends?.[index] as EndSpec<ParamValues> | undefined;
  if (!kind || !spec) return null;
  const end = endModule(goal);
  const params = completeParams(kind, end.params);
  const unit = spec.unit(params);
  const source = boundAt(patchOf(goal, end, null, unit), 'mover');
  const outputs = kindNamed(goal.by)?.outputs(completeParams(kindNamed(goal.by) ?? kind)) ?? [];
  const [s0, s1] = source.outputs[outputs.indexOf(sourceOf(goal.by).output.split('.')[1] ?? 'out')] ?? [0, 0];
  const [p, q] = lineOf(goal.socket, end, index);
  const [d0, d1] = [driveFor(spec, params, goal.low), driveFor(spec, params, goal.high)];
  const [v0, v1] = q === 0 ? [0, 0] : [(d0 - p) / q, (d1 - p) / q];
  const amount = rounded(clamp(s1 === s0 ? 0 : (v1 - v0) / (s1 - s0), 4));
  const lift = rounded(clamp(v0 - amount * (amount < 0 ? s1 : s0), REACH));
  const patch = patchOf(goal, end, stageFor(amount, lift), unit);
  const graph = buildGraph(patch);
  const at = `end.${goal.socket}`;
  const reading = readingsOf(graph, new BoundsEngine().run(graph), null).find((r) => r.at === at);
  return reading ? { patch, reading, reached: meets(reading, goal), amount, lift } : null;
}

const clamp = (x: number, most: number): number => Math.min(most, Math.max(-most, x));
/** As a knob can be set, but no coarser than a figure needs. */
const rounded = (x: number): number => Math.round(x * 1e6) / 1e6;

/** The destination's drive as a line of the voltage at the socket: at 0 V, and a volt's worth. */
function lineOf(socket: string, end: ModuleDoc, index: number): readonly [number, number] {
  const at = (volts: number): number => {
    const fixed: ModuleDoc = { id: 'fixed', kind: 'constant', params: { volts } };
    const cable = { from: 'fixed.out', to: `end.${socket}` };
    const found = new BoundsEngine().run(buildGraph({ ...blank, modules: [fixed, end], cables: [cable] }));
    return found.get('end')?.ends[index]?.drive[0] ?? 0;
  };
  const zero = at(0);
  return [zero, at(1) - zero];
}

function meets(reading: Reading, { low, high }: Goal): boolean {
  const near = (figure: number | null, wanted: number): boolean =>
    figure !== null && Math.abs(figure - wanted) <= 1e-3 * Math.max(Math.abs(high - low), Math.abs(wanted) * 1e-3);
  return near(reading.low, low) && near(reading.high, high);
}
