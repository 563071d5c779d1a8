import { knobsIn } from '@/core';
import type { Edit, Hand, HandPoint, ModuleDoc, Patch } from '@/core';
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
  /** When it began, and when it was there; by the page's clock until the sound thread says when it was heard. */
  begins: number;
  ends: number;
}

/** The knobs of a module that stand elsewhere in another state of it. */
function movedKnobs(
  before: ModuleDoc,
  after: ModuleDoc,
  bpm: number,
): { at: string; value: number; from: number; span: number }[] {
  if (before.kind !== after.kind) return [];
  const was = new Map(knobsIn(before, bpm).map((k) => [k.at, k.value]));
  return knobsIn(after, bpm).flatMap(({ at, value, min, max }) => {
    const from = was.get(at);
    return from === undefined || from === value ? [] : [{ at, value, from, span: max - min }];
  });
}

/** The corners of what a knob did: held until each move begins, there when it ends. Moves of one moment are one. */
function cornersOf(moves: readonly Move[], begun: number): HandPoint[] {
  const [first] = moves;
  if (!first) return [];
  const points: HandPoint[] = [{ t: begun, value: first.from }];
  moves.forEach(({ begins, ends, value }, i) => {
    const next = moves[i + 1];
    if (next && next.begins - begins < APART) return;
    const last = points.at(-1) as HandPoint;
    const from = Math.max(begins, last.t);
    if (from - last.t > APART) points.push({ t: from, value: last.value });
    points.push({ t: Math.max(ends, from + 2 * APART), value });
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
      for (const moved of movedKnobs(was, m, bpm)) this.moves.push({ ...moved, edit, begins: t, ends: t });
    }
  }

  /** When an edit was heard: from where its knobs began to move until they were there, seconds after the start of play. */
  heard(edit: number, begins: number, ends: number): void {
    for (const move of this.moves) if (move.edit === edit) Object.assign(move, { begins, ends });
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
