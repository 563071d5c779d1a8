import { socketAt } from '../document/sockets';
import { placeName } from '../document/names';
import { completeParams } from '../document/params';
import { blank } from '../document/parse';
import type { Cable, ModuleDoc, Patch } from '../document/types';
import { applyEdits } from '../edit/edit';
import { kindNamed, kindTitle } from '../kinds';
import { openedEnd } from './opened';
import { outputEdits } from './output';
import type { PlanRequest, Wish } from './request';

/** What moves a goal, each with what it needs to move at all. */
export const goalSources = ['lfo', 'envelope', 'gesture', 'sequencer'] as const;
export type GoalSource = (typeof goalSources)[number];

export interface Goal {
  /** A destination: kind and socket. */
  readonly kind: string;
  readonly socket: string;
  /** What should arrive there, in the destination's own unit. */
  readonly wish: Wish;
  readonly by: GoalSource;
}

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
        modules: [{ id: 'mover', kind: 'lfo', label: 'LFO', params: { rateHz: 0.25 } }],
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
        modules: [{ id: 'mover', kind: 'gesture', label: 'Fader gesture', params: { points } }],
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
  if (!kind || !input || input.name === socket || kind.category !== 'between') return { modules: [], cables: [] };
  return {
    modules: [{ id: 'voice', kind: 'oscillator', label: 'Voice' }],
    cables: [{ from: 'voice.saw', to: `end.${input.name}` }],
  };
}

/** The destination, with the socket's own amount knob opened where it starts shut. */
function endModule({ kind, socket }: Goal): ModuleDoc {
  const params = openedEnd(kind, socket);
  return { id: 'end', kind, label: kindTitle(kind), ...(params && { params }) };
}

/**
 * A goal as a planner is asked: a patch with what moves, what is to be moved, and something to be heard through it.
 *
 * @returns null where there is no such destination.
 */
export function goalRequest(goal: Goal): PlanRequest | null {
  const spec = kindNamed(goal.kind)?.ends?.find((e) => e.socket === goal.socket);
  if (!spec) return null;
  const [source, voice, end] = [sourceOf(goal.by), voiceFor(goal), endModule(goal)];
  const to = `end.${goal.socket}`;
  const patch: Patch = {
    ...blank,
    name: placeName([end], socketAt(end.id, goal.socket)),
    modules: [...source.modules, ...voice.modules, end],
    cables: [...source.cables, ...voice.cables],
    probes: [{ at: source.output }, { at: to }],
  };
  // What is heard is led out, so that the patch can be played and patched to its end.
  return { patch: applyEdits(patch, outputEdits(patch)), from: source.output, to, target: goal.wish };
}
