import { knobsIn } from '@/core';
import type { Hand, ModuleDoc, NumberSpec, Patch, Travel } from '@/core';

/** So long before a take begins a move belongs to it, seconds. */
const EARLY = 0.1;

/** One knob that was turned once while a take ran. */
export interface Move {
  readonly at: string;
  readonly from: number;
  readonly value: number;
  readonly travel: Travel;
  /** The edit that made it. */
  readonly edit: number;
  /** Says how it moved. */
  readonly spec: Pick<NumberSpec, 'glides' | 'taper'>;
  /** When it began, seconds after the start of play. */
  readonly begins: number;
}

/** What was recorded: every move, when it was heard, and what turned those knobs before. */
export interface Recorded {
  /** Seconds after the start of play. */
  readonly begun: number;
  readonly ended: number;
  readonly bpm: number;
  readonly moves: readonly Move[];
  readonly hands: readonly Hand[];
}

/** The knobs of a module that stand elsewhere in another state of it. */
function movedKnobs(before: ModuleDoc, after: ModuleDoc, bpm: number): Omit<Move, 'edit' | 'begins'>[] {
  if (before.kind !== after.kind) return [];
  const was = new Map(knobsIn(before, bpm).map((k) => [k.at, k.value]));
  return knobsIn(after, bpm).flatMap(({ at, value, min, max, spec }) => {
    const from = was.get(at);
    return from === undefined || from === value
      ? []
      : [{ at, value, from, travel: { min, max, taper: spec.taper }, spec }];
  });
}

/** One stretch of playing, as it is recorded: every knob that was turned, with when that was heard. */
export class Take {
  private readonly moves: Move[] = [];
  /** By edit, when the sound thread says it was heard. */
  private readonly heardAt = new Map<number, number>();
  private hands: readonly Hand[] = [];
  private bpm = 120;

  /**
   * @param begun seconds after the start of play: by the page's clock, which may be ahead of what is heard; of a take that
   * was counted in exactly.
   */
  constructor(
    readonly begun: number,
    private readonly isCounted = false,
  ) {}

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
    this.bpm = bpm;
    const known = this.moved;
    for (const m of after.modules) {
      const was = before.modules.find((x) => x.id === m.id);
      if (!was || was === m) continue;
      for (const moved of movedKnobs(was, m, bpm)) {
        this.moves.push({ ...moved, edit, begins: t });
        const hand = before.hands.find((h) => h.at === moved.at);
        if (hand && !known.has(moved.at)) this.hands = [...this.hands, hand];
      }
    }
  }

  /** When an edit was heard: when its knobs began to move, seconds after the start of play. */
  heard(edit: number, begins: number): void {
    this.heardAt.set(edit, begins);
  }

  /** Moves that the sound thread has not told of yet. */
  get isUnheard(): boolean {
    return this.moves.some((m) => !this.heardAt.has(m.edit));
  }

  /** What was played by now. What was turned during a count-in is left out, unless it was just early. */
  recorded(ended: number): Recorded {
    const { bpm, hands, heardAt, isCounted } = this;
    const heard = this.moves
      .map((m) => ({ ...m, begins: heardAt.get(m.edit) ?? m.begins }))
      .toSorted((a, b) => a.edit - b.edit);
    const begun = isCounted ? this.begun : Math.min(this.begun, ...heard.map((m) => m.begins));
    const moves = heard
      .filter((m) => m.begins >= begun - EARLY)
      .map((m) => ({ ...m, begins: Math.max(begun, m.begins) }));
    return { begun, ended: Math.max(ended, ...moves.map((m) => m.begins)), bpm, moves, hands };
  }
}
