import type { Change, History } from './history';

/** The most changes named in one save; the last ones where there are more. */
const MOST = 40;
const LONGEST = 200;

/** The names of what was changed since the last save, as the undo list has them. */
export class Changes {
  private names: string[] = [];
  private top: Change | undefined;
  private length: number;

  constructor(history: History) {
    this.top = history.past.at(-1);
    this.length = history.past.length;
  }

  /** Takes note of a step of the history. */
  note({ past, future }: History): void {
    const top = past.at(-1);
    if (top === this.top) return;
    const last = this.names.length - 1;
    if (top && past.length === this.length && top.key !== null && top.key === this.top?.key && last >= 0)
      this.names[last] = top.label;
    else if (past.length < this.length) this.names.push(`Undo: ${future[0]?.label ?? ''}`);
    else if (top) this.names.push(top.label);
    this.top = top;
    this.length = past.length;
    this.names = this.names.slice(-MOST).map((name) => name.slice(0, LONGEST));
  }

  /** What a save that is sent now holds. */
  get list(): readonly string[] {
    return this.names;
  }

  /** A save that held this many of them was confirmed. */
  saved(count: number): void {
    this.names = this.names.slice(count);
  }
}
