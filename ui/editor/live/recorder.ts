import type { Patch } from '@/core';
import { Take } from './take';
import type { Recorded } from './take';

/** So long before its first tick a count-in is asked for, seconds: it must reach the sound thread. */
const AHEAD = 0.15;

/** Records what is turned, from now or from a beat on, until it is ended. */
export class Recorder {
  private take: Take | null = null;
  /** When it was ended; null while it runs. */
  private ended: number | null = null;

  /** The knobs that were turned by now: each is in the hand's own power. */
  get moved(): ReadonlySet<string> {
    return (this.runs && this.take?.moved) || new Set();
  }

  get runs(): boolean {
    return this.take !== null && this.ended === null;
  }

  /**
   * Begins at once, or after some beats of the patch's tempo, on a beat.
   *
   * @returns when the beats before it are ticked, seconds after the start of play.
   */
  begin(now: number, bpm: number, countIn: number): number[] {
    this.ended = null;
    if (countIn === 0) {
      this.take = new Take(now);
      return [];
    }
    const beat = 60 / bpm;
    const first = Math.ceil((now + AHEAD) / beat);
    this.take = new Take((first + countIn) * beat, true);
    return Array.from({ length: countIn }, (_, i) => (first + i) * beat);
  }

  /** Whether beats are still counted. */
  counts(now: number): boolean {
    return this.take !== null && now < this.take.begun;
  }

  note(before: Patch, after: Patch, edit: number, t: number): void {
    if (this.runs) this.take?.note(before, after, edit, t);
  }

  heard(edit: number, begins: number): void {
    this.take?.heard(edit, begins);
  }

  /** Ends it: what is turned from now on is not recorded. */
  end(now: number): void {
    if (this.runs) this.ended = now;
  }

  /** It was ended, and its last moves were not heard yet. */
  get waits(): boolean {
    return this.ended !== null && (this.take?.isUnheard ?? false);
  }

  /** What was recorded, once it has ended; null where nothing was turned. */
  taken(): Recorded | null {
    const { take, ended } = this;
    if (!take || ended === null) return null;
    this.take = null;
    this.ended = null;
    const recorded = take.recorded(ended);
    return recorded.moves.length > 0 ? recorded : null;
  }

  /** A take that was ended and not fetched yet. */
  get isEnded(): boolean {
    return this.ended !== null;
  }
}
