import { handAt, HANDS, positionOf } from '@/core';
import type { Edit, Hand, HandPoint } from '@/core';
import { isInOctaves, rampSeconds, rampValue } from '@/core/live/ramps';
import { simplified } from '../gesture/points';
import { quantised } from './quantise';
import type { Move, Recorded } from './take';

/**
 * A recorded move may be off by this share of its knob's travel: a rate or a pitch runs away from where it was heard by what
 * its knob is off, summed up. More only where a hand has no points for it.
 */
const LOOSE = 0.0002;
const LOOSEST = 0.005;
/** Times closer than this are one moment, seconds. */
const APART = 1e-6;
/** Straight pieces of a ramp over all of a logarithmic knob's travel: off by a thousandth of it. */
const PIECES = 32;

/** How a take is kept. */
export interface TakeShape {
  /** Moves begin at multiples of so many beats; null where they stay as they were played. */
  readonly gridBeats: number | null;
  /** Its last so many beats are played over and over; null for once. */
  readonly loopBeats: number | null;
  /** What turned a knob before it was touched, and turns it again afterwards. */
  readonly overdub: boolean;
}

export const asPlayed: TakeShape = { gridBeats: null, loopBeats: null, overdub: false };

/** A point of a polyline that may jump: two at one time, less `APART`. */
type Corner = HandPoint;

/** What a move does from when it begins until another takes over: its ramp, in pieces as straight as can be heard. */
function rampOf({ value, spec, travel }: Move, begins: number, from: number, share: number, lasts: number): Corner[] {
  const way = Math.abs(positionOf(travel, value) - positionOf(travel, from));
  const pieces = isInOctaves(spec) ? Math.max(1, Math.ceil(PIECES * way)) : 1;
  return Array.from({ length: pieces }, (_, i) => {
    const at = (share * (i + 1)) / pieces;
    return { t: begins + at * lasts, value: rampValue(spec, from, value, at) };
  });
}

/** The corners of what a knob did: held until each move begins, there when it ends or another takes it over on its way. */
function cornersOf(moves: readonly Move[], first: Corner): Corner[] {
  const points: Corner[] = [first];
  moves.forEach((move, i) => {
    const { begins, value, spec } = move;
    const next = moves[i + 1];
    // Moves of one moment are one.
    if (next && next.begins - begins < APART) return;
    const last = points.at(-1) as Corner;
    const from = Math.max(begins, last.t);
    if (from - last.t > APART) points.push({ t: from, value: last.value });
    const lasts = Math.max(rampSeconds(spec, last.value, value), 2 * APART);
    const share = next ? Math.min(1, Math.max(0, (next.begins - from) / lasts)) : 1;
    if (share > 0) points.push(...rampOf(move, from, last.value, share, lasts));
  });
  return points;
}

/** What a hand does in a stretch, as corners; the stretch's ends among them. */
function cornersOfHand(hand: Hand, from: number, to: number): Corner[] {
  const period = hand.points.at(-1)?.t ?? 0;
  const turns = hand.loop && period > 0 ? Math.ceil(to / period) + 1 : 1;
  const holds = hand.interpolation === 'hold';
  const inside = Array.from({ length: turns }, (_, n) =>
    hand.points.flatMap((p, i): Corner[] => {
      const t = n * period + p.t;
      const held = holds ? hand.points[i - 1] : undefined;
      return [...(held ? [{ t: t - APART, value: held.value }] : []), { t, value: p.value }];
    }),
  ).flat();
  const ends = [from, to].map((t) => ({ t, value: handAt(hand, t) }));
  return [ends[0] as Corner, ...inside.filter((p) => p.t > from + APART && p.t < to - APART), ends[1] as Corner];
}

/** Where a polyline is at a time; held before its first corner and behind its last. */
function lineAt(line: readonly Corner[], t: number): number {
  const after = line.findIndex((p) => p.t > t);
  const [a, b] = after < 0 ? [line.at(-1), undefined] : [line[after - 1], line[after]];
  if (!a) return b?.value ?? 0;
  return b ? a.value + ((b.value - a.value) * (t - a.t)) / (b.t - a.t) : a.value;
}

/** A stretch of a line, up to where it jumps at its end. */
const cut = (line: readonly Corner[], from: number, to: number): Corner[] => [
  { t: from, value: lineAt(line, from) },
  ...line.filter((p) => p.t > from + APART && p.t < to - APART),
  { t: to, value: lineAt(line, to - APART) },
];

/** The last stretch of a line, of the length of a loop, laid so that it is heard when it was played; held where it is shorter. */
function loopOf(line: readonly Corner[], ended: number, period: number): Corner[] {
  const seam = Math.floor(ended / period + 1e-9) * period;
  const early = ended - seam > APART ? cut(line, seam, ended).map((p) => ({ ...p, t: p.t - seam })) : [];
  if (seam === 0) return [...early, { t: period, value: lineAt(line, ended) }];
  return [...early, ...cut(line, ended - period, seam).map((p) => ({ ...p, t: p.t - seam + period }))];
}

/** Points whose times rise, as a hand needs them. */
function rising(corners: readonly Corner[]): Corner[] {
  const points: Corner[] = [];
  for (const { t, value } of corners) {
    const last = points.at(-1);
    points.push({ t: last ? Math.max(t, last.t + APART) : Math.max(0, t), value });
  }
  return points;
}

function thinned(corners: readonly Corner[], { travel }: Move): Corner[] {
  const line = rising(corners).map(({ t, value }) => ({ t, volts: value }));
  for (let within = LOOSE; ; within *= 2) {
    const points = simplified(line, within, (v) => positionOf(travel, v));
    if (points.length <= HANDS.points || within > LOOSEST) return points.map((p) => ({ t: p.t, value: p.volts }));
  }
}

/** The hand that plays a knob's moves again. */
function handOf({ begun, ended, bpm, hands }: Recorded, moves: readonly Move[], shape: TakeShape): Hand {
  const [first] = moves as [Move];
  const { at } = first;
  const before = hands.find((h) => h.at === at);
  const touched = Math.max(begun, first.begins);
  const own = cornersOf(
    moves,
    before ? { t: touched, value: handAt(before, touched) } : { t: begun, value: first.from },
  );
  const line = before ? [...cornersOfHand(before, 0, touched), ...own] : own;
  const looped = before?.loop && shape.overdub ? (before.points.at(-1)?.t ?? 0) : 0;
  const period = looped || ((shape.loopBeats ?? 0) * 60) / bpm;
  if (period > 0)
    return { at, points: thinned(loopOf(line, ended, period), first), interpolation: 'linear', loop: true };
  const last = before?.points.at(-1)?.t ?? 0;
  const rest = before && shape.overdub && last > ended ? cornersOfHand(before, ended, last) : [];
  const held = rest.length > 0 ? [...line, { t: ended, value: lineAt(line, ended) }, ...rest] : line;
  return { at, points: thinned(held, first), interpolation: 'linear', loop: false };
}

/** The hands that play a take again, within half a percent of each knob's travel at every sample unless it is quantised. */
export function handsOf(recorded: Recorded, shape: TakeShape = asPlayed): Hand[] {
  const { gridBeats } = shape;
  const grid = gridBeats === null ? null : (gridBeats * 60) / recorded.bpm;
  return [...new Set(recorded.moves.map((m) => m.at))].map((at) => {
    const moves = recorded.moves.filter((m) => m.at === at);
    return handOf(recorded, grid === null ? moves : quantised(moves, grid), shape);
  });
}

/** Hands as one edit of the patch. */
export const handEdits = (hands: readonly Hand[]): Edit[] => hands.map((hand) => ({ do: 'hand', at: hand.at, hand }));
