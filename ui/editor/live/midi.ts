import { CONTROLS } from '@/core';

/** What a controller says, as far as it is listened to; `share` is how far a control is turned, 0..1. */
export type MidiWord =
  | { readonly is: 'control'; readonly number: number; readonly share: number }
  | { readonly is: 'note'; readonly key: number; readonly velocity: number }
  /** A system exclusive message, from F0 to F7. */
  | { readonly is: 'exclusive'; readonly bytes: Uint8Array };

type Listener = (word: MidiWord) => void;
type Bytes = ArrayLike<number> & Iterable<number>;

const BEND = CONTROLS.bend;
/** Begins a system exclusive message. */
const EXCLUSIVE = 0xf0;

/** What people call a control. */
export const controlName = (number: number): string => (number === BEND ? 'Pitch bend' : `CC ${number}`);

/** Control changes below this have a finer part, as many numbers above. */
const COARSE = 32;
const MOST_FINE = 2 ** 14 - 1;

/** Reads the messages of one device: a control that came in two parts, one right after the other, has 14 bits. */
export class Decoder {
  /** The coarse part that came last, until another message follows. */
  private pending: string | null = null;
  /** Coarse parts, by channel and control, of those that have two. */
  private readonly fine = new Map<string, number>();
  private readonly coarse = new Map<string, number>();

  /** A message in words; null for what is not listened to, or not whole yet. */
  word(bytes: Bytes): MidiWord | null {
    const [status = 0, first = 0, second = 0] = bytes;
    if (status === EXCLUSIVE) return { is: 'exclusive', bytes: Uint8Array.from(bytes) };
    const [message, channel] = [status & 0xf0, status & 0x0f];
    const before = this.pending;
    this.pending = null;
    if (message === 0xe0) return { is: 'control', number: BEND, share: (first + 128 * second) / MOST_FINE };
    if (message === 0x90) return { is: 'note', key: first, velocity: second };
    if (message === 0x80) return { is: 'note', key: first, velocity: 0 };
    if (message !== 0xb0) return null;
    return first < COARSE
      ? this.first(`${channel} ${first}`, first, second, before)
      : this.second(`${channel} ${first - COARSE}`, first, second, before);
  }

  private first(key: string, number: number, value: number, before: string | null): MidiWord | null {
    this.pending = key;
    this.coarse.set(key, value);
    // Twice without a finer part between: it has none, after all.
    if (before === key) this.fine.delete(key);
    if (!this.fine.has(key)) return { is: 'control', number, share: value / 127 };
    this.fine.set(key, value);
    return null;
  }

  private second(key: string, number: number, value: number, before: string | null): MidiWord {
    if (before === key) this.fine.set(key, this.coarse.get(key) ?? 0);
    // A coarse part that did not change need not be sent again.
    const coarse = this.fine.get(key);
    return coarse === undefined
      ? { is: 'control', number, share: value / 127 }
      : { is: 'control', number: number - COARSE, share: (128 * coarse + value) / MOST_FINE };
  }
}

/** All controllers of this browser, and one that is not there: to try with. */
export class Controllers {
  private readonly listeners = new Set<Listener>();
  private access: MIDIAccess | null = null;
  /** Whether system exclusive messages were asked for. */
  private exclusive = false;
  private readonly simulated = new Decoder();

  listen(listener: Listener): () => void {
    this.listeners.add(listener);
    return () => void this.listeners.delete(listener);
  }

  /** What the simulated controller sends. */
  send(bytes: Bytes): void {
    const word = this.simulated.word(bytes);
    if (word) for (const listener of this.listeners) listener(word);
  }

  /**
   * Asks for the devices of this machine.
   *
   * @param exclusive their system exclusive messages too, which a browser asks about more sternly.
   * @returns their names.
   * @throws Error where the browser has none, or is not allowed to.
   */
  async open({ exclusive = false } = {}): Promise<string[]> {
    if (!('requestMIDIAccess' in navigator)) throw new Error('This browser doesn’t support MIDI.');
    this.exclusive ||= exclusive;
    this.access = await navigator.requestMIDIAccess({ sysex: this.exclusive });
    const inputs = [...this.access.inputs.values()];
    for (const input of inputs) {
      const decoder = new Decoder();
      input.onmidimessage = ({ data }) => {
        const word = data && decoder.word(data);
        if (word) for (const listener of this.listeners) listener(word);
      };
    }
    return inputs.map((i) => i.name ?? 'Unnamed device');
  }

  close(): void {
    for (const input of this.access?.inputs.values() ?? []) input.onmidimessage = null;
    this.listeners.clear();
  }
}
