/** So far off a controller still counts as where the knob stands: one of its 127 steps. */
const NEAR = 1 / 127;

interface Held {
  readonly at: string;
  /** Where it was last. */
  last: number | null;
  /** Where it put the knob; null while the knob is not its own. */
  given: number | null;
}

/** Lets a controller move a knob only once it has come to where the knob stands, or passed it: no jump. */
export class Takeover {
  private readonly held = new Map<number, Held>();

  /**
   * @param standing where the knob stands on its way, 0..1. @param to where the controller is, 0..1.
   * @returns where the knob goes; null while it waits for the controller.
   */
  move(control: number, at: string, standing: number, to: number): number | null {
    const known = this.held.get(control);
    const held: Held = known?.at === at ? known : { at, last: null, given: null };
    this.held.set(control, held);
    const { last, given } = held;
    const isOwn = given !== null && Math.abs(standing - given) < NEAR / 2;
    const passes = last !== null && (last - standing) * (to - standing) <= 0;
    held.last = to;
    held.given = isOwn || passes || Math.abs(to - standing) <= NEAR ? to : null;
    return held.given;
  }
}
