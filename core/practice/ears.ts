import { levelOf, levelSteps, makeUpDb } from '../simulate/level';
import type { Patch } from '../document/types';
import { applyEdits } from '../edit/edit';
import type { Edit } from '../edit/edit';
import { PatchBuilder } from './build';
import type { Draws } from './draws';
import { set } from './chain';
import { Seen } from './seen';
import type { Choice, Drawn, Skill } from './types';

const NAMES = ['First', 'Second'];
/** What two renderings differ by at least, as a share. */
const LEAST = 0.03;

/** A saw through a filter and an amplifier into a line output, both moved by an LFO whose share can be turned down. */
export function earPatch(
  d: Draws,
  params: { readonly lfo?: object; readonly fog?: object; readonly beam?: object } = {},
): PatchBuilder {
  const b = new PatchBuilder();
  const slow = b.add('lfo', 'Swell', { rateHz: 1, shape: 'triangle', ...params.lfo });
  const tone = b.add('oscillator', 'Drone', { baseHz: d.pick([82.407, 110, 146.832]) });
  const fog = b.add('filter', 'Fog', { cutoffHz: 500, cutoffAmount: 0.4, ...params.fog });
  const beam = b.add('vca', 'Beam', { bias: 5, cvAmount: 0, ...params.beam });
  const pier = b.add('lineOut', 'Pier', { padDb: 12, dcBlock: true });
  return b
    .plug(`${slow}.out`, `${fog}.cutoff`)
    .plug(`${slow}.out`, `${beam}.cv`)
    .plug(`${tone}.saw`, `${fog}.in`)
    .plug(`${fog}.lowpass`, `${beam}.in`)
    .plug(`${beam}.out`, `${pier}.left`);
}

/** Where both renderings come out. */
const OUT = 'beam.out';

/** Two renderings with the pad that makes the louder as loud as the other. */
function matched(
  patch: Patch,
  renderings: readonly { readonly edits: readonly Edit[]; readonly seen: Seen }[],
): readonly (readonly Edit[])[] {
  const [a, b] = renderings.map(({ seen }) => levelOf(levelSteps(seen.trace(OUT), seen.simulation.sampleRate)));
  const more = a && b ? makeUpDb(a, b) : null;
  const pad = Number(patch.modules.find((m) => m.id === 'pier')?.params?.padDb ?? 0);
  return renderings.map(({ edits }, i) =>
    more !== null && (i === 0) === more < 0
      ? [...edits, set('pier.padDb', Number((pad + Math.abs(more)).toFixed(2)))]
      : edits,
  );
}

/** Two renderings that somebody is to tell apart. */
interface Pair {
  readonly it: readonly Edit[];
  readonly other: readonly Edit[];
  readonly text: string;
  /** What is more in the one that is asked for, as it is predicted. */
  readonly more: (seen: Seen) => number;
  /** Sockets whose traces tell it. */
  readonly traces?: readonly string[];
}

/** Two renderings of a patch in a drawn order, as loud as each other: which of them is it? */
export function whichIsIt(d: Draws, patch: Patch, { it, other, text, more, traces = [] }: Pair): Drawn | null {
  const order = (d.chance(0.5) ? [it, other] : [other, it]).map((edits) => {
    return { edits, seen: new Seen(applyEdits(patch, edits), { traces: [...traces, OUT] }) };
  });
  const [first = 0, second = 0] = order.map(({ seen }) => more(seen));
  if (!(Math.abs(first - second) > LEAST * Math.max(Math.abs(first), Math.abs(second)))) return null;
  const choices = matched(patch, order).map((edits, i): Choice => ({ text: NAMES[i] ?? '', edits }));
  const choice = first > second ? 0 : 1;
  return { patch, text, answer: 'choice', choices, truth: () => ({ choice }), slips: [] };
}

/** A skill of the ear that tells two renderings apart. */
export const earSkill = (name: string, text: string, draw: Skill['draw']): Skill => ({
  name,
  group: 'ear',
  text,
  needsSound: true,
  draw,
});
