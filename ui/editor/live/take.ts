import { knobsIn } from '@/core';
import type { Edit, Hand, HandPoint, ModuleDoc, Patch } from '@/core';
import { ordered, simplified } from '../gesture/points';

/** A recorded move may be off by this share of its knob's span. */
const LOOSE = 0.002;
/** Knobs that jump between notes are held, not slid: this share of all steps, at least. */
const JUMPS = 0.5;
/** A step this near in time to the one before is a slide, seconds. */
const SLIDE = 0.12;

type Moves = Map<string, { readonly points: HandPoint[]; readonly span: number }>;

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

/** One stretch of playing, as it is recorded: every knob that was turned, with when. */
export class Take {
  private readonly moves: Moves = new Map();

  /** @param begun seconds after the start of play. */
  constructor(private readonly begun: number) {}

  /** The knobs that were turned by now. */
  get moved(): ReadonlySet<string> {
    return new Set(this.moves.keys());
  }

  /** The knobs that an edit moved, by the time played in seconds. */
  note(before: Patch, after: Patch, t: number): void {
    const { bpm } = after.settings;
    for (const m of after.modules) {
      const was = before.modules.find((x) => x.id === m.id);
      if (!was || was === m) continue;
      for (const { at, value, from, span } of movedKnobs(was, m, bpm)) {
        const known = this.moves.get(at) ?? { points: [{ t: this.begun, value: from }], span };
        // Moves come in their order, however the clock that tells their times is set right between them.
        known.points.push({ t: Math.max(t, (known.points.at(-1) as HandPoint).t), value });
        this.moves.set(at, known);
      }
    }
  }

  /** The hands that play it again. */
  hands(): Hand[] {
    return [...this.moves].map(([at, { points, span }]): Hand => {
      const steps = points.slice(1).map((p, i) => p.t - (points[i] as HandPoint).t);
      const jumps = steps.filter((s) => s > SLIDE).length / Math.max(1, steps.length);
      const hold = jumps >= JUMPS;
      const volts = ordered(points.map(({ t, value }) => ({ t, volts: value })));
      const thin = hold ? volts : simplified(volts, span * LOOSE);
      return {
        at,
        points: thin.map((p) => ({ t: p.t, value: p.volts })),
        interpolation: hold ? 'hold' : 'linear',
        loop: false,
      };
    });
  }
}

/** Hands as one edit of the patch. */
export const handEdits = (hands: readonly Hand[]): Edit[] => hands.map((hand) => ({ do: 'hand', at: hand.at, hand }));
