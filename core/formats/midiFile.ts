import { parseMidi } from 'midi-file';
import type { MidiEvent, MidiHeader } from 'midi-file';
import type { KeyTuning } from './keyTuning';
import { readTuning } from './midiTuning';

export interface MidiNote {
  /** MIDI number: 60 is middle C. */
  readonly note: number;
  readonly from: number;
  readonly to: number;
  /** 0..1 */
  readonly velocity: number;
}

export interface MidiTrack {
  readonly name: string;
  /** By their beginnings, the first `MOST_NOTES` of them. */
  readonly notes: readonly MidiNote[];
  /** How many the file holds. */
  readonly noteCount: number;
  /** By controller number: its values 0..1 over time. */
  readonly controllers: ReadonlyMap<number, readonly { readonly t: number; readonly value: number }[]>;
}

export interface MidiFile {
  readonly bpm: number;
  readonly tracks: readonly MidiTrack[];
  /** The tuning that it sets, by the MIDI Tuning Standard; null where it sets none. */
  readonly tuning: KeyTuning | null;
}

/** Twice what a gesture can hold: what comes later could not be used. */
const MOST_NOTES = 20_000;

interface Tempo {
  readonly tick: number;
  readonly seconds: number;
  readonly perTick: number;
}

const DEFAULT_BEAT = 500_000;

/** Ticks to seconds, through every change of tempo; frames of SMPTE time have none. */
class TickClock {
  readonly bpm: number;
  private readonly tempos: Tempo[];
  private at = 0;

  constructor(header: MidiHeader, tracks: readonly (readonly MidiEvent[])[]) {
    const { ticksPerBeat, framesPerSecond, ticksPerFrame } = header;
    if (!ticksPerBeat) {
      this.bpm = 60e6 / DEFAULT_BEAT;
      this.tempos = [{ tick: 0, seconds: 0, perTick: 1 / ((framesPerSecond || 25) * (ticksPerFrame || 40)) }];
      return;
    }
    const changes = tracks.flatMap((events) => temposOf(events)).sort((a, b) => a.tick - b.tick);
    this.bpm = 60e6 / (changes[0]?.beat || DEFAULT_BEAT);
    this.tempos = [{ tick: 0, seconds: 0, perTick: DEFAULT_BEAT / 1e6 / ticksPerBeat }];
    for (const { tick, beat } of changes) {
      const last = this.tempos.at(-1) as Tempo;
      const seconds = last.seconds + (tick - last.tick) * last.perTick;
      this.tempos.push({ tick, seconds, perTick: beat / 1e6 / ticksPerBeat });
    }
  }

  /** Asked in the order of time, as events come. */
  seconds(tick: number): number {
    if ((this.tempos[this.at] as Tempo).tick > tick) this.at = 0;
    while ((this.tempos[this.at + 1]?.tick ?? Infinity) <= tick) this.at++;
    const { tick: since, seconds, perTick } = this.tempos[this.at] as Tempo;
    return seconds + (tick - since) * perTick;
  }
}

function temposOf(events: readonly MidiEvent[]): { tick: number; beat: number }[] {
  const found: { tick: number; beat: number }[] = [];
  let tick = 0;
  for (const event of events) {
    tick += event.deltaTime;
    if (event.type === 'setTempo' && event.microsecondsPerBeat > 0)
      found.push({ tick, beat: event.microsecondsPerBeat });
  }
  return found;
}

interface Voice {
  readonly notes: MidiNote[];
  readonly controllers: Map<number, { t: number; value: number }[]>;
  /** Notes that sound, by number, the eldest first; each ends at its own note-off. */
  readonly open: Map<number, { from: number; velocity: number }[]>;
}

/** The voices of one track: one, or one a channel where a file keeps all in one track. */
function voicesOf(events: readonly MidiEvent[], clock: TickClock, byChannel: boolean): Map<number, Voice> {
  const voices = new Map<number, Voice>();
  const voice = (channel: number): Voice => {
    const key = byChannel ? channel : 0;
    const made = voices.get(key) ?? { notes: [], controllers: new Map(), open: new Map() };
    voices.set(key, made);
    return made;
  };
  let tick = 0;
  for (const event of events) {
    tick += event.deltaTime;
    if (event.type !== 'noteOn' && event.type !== 'noteOff' && event.type !== 'controller') continue;
    const t = clock.seconds(tick);
    const to = voice(event.channel);
    if (event.type === 'controller') {
      const value = event.value / 127;
      const changes = to.controllers.get(event.controllerType);
      if (changes) changes.push({ t, value });
      else to.controllers.set(event.controllerType, [{ t, value }]);
    } else if (event.type === 'noteOn' && event.velocity > 0) {
      const begun = { from: t, velocity: event.velocity / 127 };
      const sounding = to.open.get(event.noteNumber);
      if (sounding) sounding.push(begun);
      else to.open.set(event.noteNumber, [begun]);
    } else {
      const begun = to.open.get(event.noteNumber)?.shift();
      if (begun) to.notes.push({ note: event.noteNumber, to: t, ...begun });
    }
  }
  return voices;
}

function nameOf(events: readonly MidiEvent[]): string {
  const named = events.find((e) => e.type === 'trackName');
  return named?.type === 'trackName' ? named.text.trim() : '';
}

/** The tuning of all keys that system exclusive messages set. */
function tuningOf(tracks: readonly (readonly MidiEvent[])[]): KeyTuning | null {
  const said = tracks.flat().flatMap((e) => (e.type === 'sysEx' ? [0xf0, ...(e.data as unknown as number[])] : []));
  const read = readTuning(Uint8Array.from(said));
  return read.ok ? read.value : null;
}

/**
 * Reads a Standard MIDI File. A note that is never let go is left out.
 *
 * @returns its tracks that hold notes or controllers, seconds from the start.
 * @throws where it is none.
 */
export function readMidi(bytes: ArrayBuffer): MidiFile {
  const { header, tracks } = parseMidi(new Uint8Array(bytes));
  const clock = new TickClock(header, tracks);
  const read = tracks.flatMap((events, i) => {
    const name = nameOf(events) || `Track ${i + 1}`;
    const voices = [...voicesOf(events, clock, header.format === 0)];
    return voices.map(([channel, { notes, controllers }]): MidiTrack => ({
      name: voices.length > 1 ? `${name}, channel ${channel + 1}` : name,
      notes: notes.sort((a, b) => a.from - b.from).slice(0, MOST_NOTES),
      noteCount: notes.length,
      controllers,
    }));
  });
  const sounding = read.filter((t) => t.notes.length > 0 || t.controllers.size > 0);
  return { bpm: clock.bpm, tracks: sounding, tuning: tuningOf(tracks) };
}
