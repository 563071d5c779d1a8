/** What a controller says, as far as it is listened to; `share` is how far a control is turned, 0..1. */
export type MidiWord =
  | { readonly is: 'control'; readonly number: number; readonly share: number }
  | { readonly is: 'note'; readonly key: number; readonly velocity: number };

type Listener = (word: MidiWord) => void;
type Bytes = ArrayLike<number> & Iterable<number>;

/** Pitch bend, as a control beside the numbered ones. */
export const BEND = 128;
/** Control changes below this have a finer part, as many numbers above. */
const COARSE = 32;
const MOST_FINE = 2 ** 14 - 1;

/** Reads the messages of one device: a control in two parts, one after the other, has 14 bits. */
export class Decoder {
  private coarse: { readonly channel: number; readonly number: number; readonly value: number } | null = null;
  /** Controls that came in two parts: the first one waits for the second. */
  private readonly fine = new Set<string>();

  /** A message in words; null for what is not listened to, or not whole yet. */
  word([status = 0, first = 0, second = 0]: Bytes): MidiWord | null {
    const [message, channel] = [status & 0xf0, status & 0x0f];
    const before = this.coarse;
    this.coarse = null;
    if (message === 0xe0) return { is: 'control', number: BEND, share: (first + 128 * second) / MOST_FINE };
    if (message === 0x90) return { is: 'note', key: first, velocity: second };
    if (message === 0x80) return { is: 'note', key: first, velocity: 0 };
    if (message !== 0xb0) return null;
    if (before?.channel === channel && first === before.number + COARSE) {
      this.fine.add(`${channel} ${before.number}`);
      return { is: 'control', number: before.number, share: (128 * before.value + second) / MOST_FINE };
    }
    if (first < COARSE) this.coarse = { channel, number: first, value: second };
    return this.fine.has(`${channel} ${first}`) ? null : { is: 'control', number: first, share: second / 127 };
  }
}

/** All controllers of this browser, and one that is not there: to try with. */
export class Controllers {
  private readonly listeners = new Set<Listener>();
  private access: MIDIAccess | null = null;
  private readonly simulated = new Decoder();

  listen(listener: Listener): () => void {
    this.listeners.add(listener);
    return () => void this.listeners.delete(listener);
  }

  /** What the simulated controller sends. */
  send(bytes: readonly [number, number, number]): void {
    const word = this.simulated.word(bytes);
    if (word) for (const listener of this.listeners) listener(word);
  }

  /**
   * Asks for the devices of this machine.
   *
   * @returns their names.
   * @throws Error where the browser has none, or is not allowed to.
   */
  async open(): Promise<string[]> {
    if (!('requestMIDIAccess' in navigator)) throw new Error('This browser doesn’t support MIDI.');
    this.access = await navigator.requestMIDIAccess();
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
