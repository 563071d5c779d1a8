import type { MidiNote } from '@/core/formats/midiFile';
import { FIRST_KEY } from './played';

/** What was played on the keys, from the first on. */
export class KeyLog {
  private readonly done: MidiNote[] = [];
  private readonly open = new Map<number, { readonly from: number; readonly velocity: number }>();
  private begun: number | null = null;

  /** @param seconds tells the time; from any start. */
  constructor(private readonly seconds: () => number) {}

  get length(): number {
    return this.done.length + this.open.size;
  }

  /** @param velocity 0..1 */
  press(key: number, velocity: number): void {
    this.begun ??= this.seconds();
    this.open.set(key, { from: this.seconds() - this.begun, velocity });
  }

  release(key: number): void {
    const pressed = this.open.get(key);
    if (!pressed || this.begun === null) return;
    this.open.delete(key);
    this.done.push({ note: FIRST_KEY + key, to: this.seconds() - this.begun, ...pressed });
  }

  /** All notes by their beginnings; what is still held ends now. */
  notes(): readonly MidiNote[] {
    for (const key of [...this.open.keys()]) this.release(key);
    return [...this.done].sort((a, b) => a.from - b.from);
  }

  forget(): void {
    this.done.length = 0;
    this.open.clear();
    this.begun = null;
  }
}
