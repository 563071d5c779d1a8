/** What a controller says, as far as it is listened to. */
export type MidiWord =
  | { readonly is: 'control'; readonly number: number; readonly value: number }
  | { readonly is: 'note'; readonly key: number; readonly velocity: number };

type Listener = (word: MidiWord) => void;

/** A message's bytes in words; null for what is not listened to. */
export function wordOf([status = 0, first = 0, second = 0]: ArrayLike<number> & Iterable<number>): MidiWord | null {
  const word = status & 0xf0;
  if (word === 0xb0) return { is: 'control', number: first, value: second };
  if (word === 0x90) return { is: 'note', key: first, velocity: second };
  if (word === 0x80) return { is: 'note', key: first, velocity: 0 };
  return null;
}

/** All controllers of this browser, and one that is not there: to try with. */
export class Controllers {
  private readonly listeners = new Set<Listener>();
  private access: MIDIAccess | null = null;

  listen(listener: Listener): () => void {
    this.listeners.add(listener);
    return () => void this.listeners.delete(listener);
  }

  /** What the simulated controller sends. */
  send(bytes: readonly [number, number, number]): void {
    const word = wordOf(bytes);
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
      input.onmidimessage = ({ data }) => {
        const word = data && wordOf(data);
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
