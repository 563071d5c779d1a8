/** Of the time that there is: above this the next thing that the machine does is heard. */
const HEAVY = 0.85;
/** Gaps at more than this are the patch's own; below it something else on the machine made them. */
const HALF = 0.5;
/** How long it must be heavy before the person is told, seconds: a busy moment of the machine is no fault of the patch. */
const PATIENCE = 2;
/** What a gap that was heard adds, seconds. */
const GAP = 0.5;
/** Reports that stayed away, as in a tab behind others, count for no more than this, seconds. */
const LONGEST = 1;

/**
 * Whether a patch takes more than the machine has. It goes by the time that passes, not by how many reports come: the sound thread sends one per stretch of sound, so they get rarer just where it is late.
 */
export class Heaviness {
  private busy = 0;
  private last: number | null = null;
  private dropouts: number | null = null;

  /**
   * @param load the part of its time that the patch took lately.
   * @param dropouts how many there were since it began.
   * @param now seconds.
   */
  add(load: number, dropouts: number, now: number): boolean {
    const passed = this.last === null ? 0 : Math.min(LONGEST, now - this.last);
    const gaps = Math.max(0, dropouts - (this.dropouts ?? dropouts));
    this.last = now;
    this.dropouts = dropouts;
    if (load > HEAVY) this.busy += passed;
    else if (load > HALF && gaps > 0) this.busy += gaps * GAP;
    else this.busy = Math.max(0, this.busy - passed);
    return this.busy > PATIENCE;
  }
}
