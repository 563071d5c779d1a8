import { knobsIn } from '@/core';
import type { Edit, Hand, HandPoint, ModuleDoc, NumberSpec, Patch } from '@/core';
import { rampSeconds } from '@/core/live/ramps';
import { simplified } from '../gesture/points';

/** A recorded move may be off by this share of its knob's span. */
const LOOSE = 0.003;
/** Times closer than this are one moment, seconds. */
const APART = 1e-6;

interface Move {
  readonly at: string;
  readonly from: number;
  readonly value: number;
  readonly span: number;
  /** The edit that made it. */
  readonly edit: number;
  /** Says how long it took. */
  readonly spec: Pick<NumberSpec, 'glides'>;
  /** When it began; by the page's clock until the sound thread says when it was heard. */
  begins: number;
}

/** The knobs of a module that stand elsewhere in another state of it. */
function movedKnobs(
  before: ModuleDoc,
  after: ModuleDoc,
  bpm: number,
): Pick<Move, 'at' | 'value' | 'from' | 'span' | 'spec'>[] {
  if (before.kind !== after.kind) return [];
  const was = new Map(knobsIn(before, bpm).map((k) => [k.at, k.value]));
  return knobsIn(after, bpm).flatMap(({ at, value, min, max, spec }) => {
    const from = was.get(at);
    return from === undefined || from === value ? [] : [{ at, value, from, span: max - min, spec }];
  });
}

/** The corners of what a knob did: held until each move begins, there when it ends or another takes it over on its way. */
function cornersOf(moves: readonly Move[], begun: number): HandPoint[] {
  const [first] = moves;
  if (!first) return [];
  const points: HandPoint[] = [{ t: begun, value: first.from }];
  moves.forEach(({ begins, value, spec }, i) => {
    const next = moves[i + 1];
    // Moves of one moment are one.
    if (next && next.begins - begins < APART) return;
    const last = points.at(-1) as HandPoint;
    const from = Math.max(begins, last.t);
    if (from - last.t > APART) points.push({ t: from, value: last.value });
    const lasts = Math.max(rampSeconds(spec, last.value, value), 2 * APART);
    const share = next ? Math.min(1, Math.max(0, (next.begins - from) / lasts)) : 1;
    points.push({ t: from + share * lasts, value: last.value + share * (value - last.value) });
  });
  return points;
}

/** One stretch of playing, as it is recorded: every knob that was turned, with when that was heard. */
export class Take {
  private readonly moves: Move[] = [];

  /** @param begun seconds after the start of play. */
  constructor(private readonly begun: number) {}

  /** The knobs that were turned by now. */
  get moved(): ReadonlySet<string> {
    return new Set(this.moves.map((m) => m.at));
  }

  /**
   * The knobs that an edit moved.
   *
   * @param edit the number under which it is sent. @param t the time played by the page's clock, seconds.
   */
  note(before: Patch, after: Patch, edit: number, t: number): void {
    const { bpm } = after.settings;
    for (const m of after.modules) {
      const was = before.modules.find((x) => x.id === m.id);
      if (!was || was === m) continue;
      for (const moved of movedKnobs(was, m, bpm)) this.moves.push({ ...moved, edit, begins: t });
    }
  }

  /** When an edit was heard: when its knobs began to move, seconds after the start of play. */
  heard(edit: number, begins: number): void {
    for (const move of this.moves) if (move.edit === edit) move.begins = begins;
  }

  /** The hands that play it again, within half a percent of each knob's span at every sample. */
  hands(): Hand[] {
    return [...this.moved].map((at): Hand => {
      const moves = this.moves.filter((m) => m.at === at).toSorted((a, b) => a.edit - b.edit);
      const corners = cornersOf(moves, this.begun).map(({ t, value }) => ({ t, volts: value }));
      const thin = simplified(corners, (moves[0]?.span ?? 0) * LOOSE);
      const points = thin.map((p) => ({ t: p.t, value: p.volts }));
      return { at, points, interpolation: 'linear', loop: false };
    });
  }
}

/** Hands as one edit of the patch. */
export const handEdits = (hands: readonly Hand[]): Edit[] => hands.map((hand) => ({ do: 'hand', at: hand.at, hand }));
