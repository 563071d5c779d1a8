import { writeMidi } from 'midi-file';
import type { MidiEvent } from 'midi-file';
import { equalTuning } from './keyTuning';
import type { KeyTuning } from './keyTuning';
import type { MidiNote } from './midiFile';
import { printTuning, sameTuning } from './midiTuning';

const TICKS = 960;
/** Longest text of a track's name. */
const NAME = 127;

/** What begins and ends, in ticks; ends before beginnings of the same moment, so that a note struck again sounds. */
function momentsOf(notes: readonly MidiNote[], perSecond: number) {
  const all = notes.flatMap(({ note, from, to, velocity }) => {
    const [begins, ends] = [Math.round(from * perSecond), Math.round(to * perSecond)];
    const strength = Math.min(127, Math.max(1, Math.round(velocity * 127)));
    return [
      { tick: begins, type: 'noteOn', note, velocity: strength } as const,
      { tick: Math.max(begins + 1, ends), type: 'noteOff', note, velocity: 0 } as const,
    ];
  });
  return all.sort((a, b) => a.tick - b.tick || (a.type === b.type ? 0 : a.type === 'noteOff' ? -1 : 1));
}

/**
 * A Standard MIDI File (format 0, one track) of notes.
 *
 * @param notes seconds from the start; MIDI numbers 0..127; velocities 0..1.
 * @param bpm its tempo.
 * @param tuning what keys play, set before the first note; equal semitones need no saying.
 * @returns the file's bytes; `readMidi` reads the same notes, to half a tick (0.26 ms at 120 bpm).
 */
export function midiFileOf(
  name: string,
  notes: readonly MidiNote[],
  bpm: number,
  tuning: KeyTuning = equalTuning,
): Uint8Array<ArrayBuffer> {
  const beat = Math.round(60e6 / bpm);
  const track: MidiEvent[] = [
    { deltaTime: 0, type: 'trackName', text: name.slice(0, NAME) },
    { deltaTime: 0, type: 'setTempo', microsecondsPerBeat: beat },
  ];
  // The first byte of the message is the event's own.
  if (!sameTuning(tuning, equalTuning))
    track.push({ deltaTime: 0, type: 'sysEx', data: printTuning(tuning).subarray(1) });
  let now = 0;
  for (const { tick, type, note, velocity } of momentsOf(notes, (TICKS * 1e6) / beat)) {
    track.push({ deltaTime: tick - now, type, noteNumber: note, velocity, channel: 0 });
    now = tick;
  }
  track.push({ deltaTime: 0, type: 'endOfTrack' });
  return Uint8Array.from(writeMidi({ header: { format: 0, numTracks: 1, ticksPerBeat: TICKS }, tracks: [track] }));
}
