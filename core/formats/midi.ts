import type { GesturePoint, Step } from '../kinds/params';
import type { KeyTuning } from './keyTuning';
import type { MidiTrack } from './midiFile';

export interface MidiScale {
  /** The note that is 0 V; 60 is C4. */
  readonly zeroNote: number;
  readonly gateVolts: number;
  /** Full velocity, and a controller at 127. */
  readonly fullVolts: number;
  /** What keys play; equal semitones where it is left out. */
  readonly tuning?: KeyTuning | null;
}

/** The note's voltages stay inside this, volts. */
const REACH = 12;
/** Between two notes that touch, the gate falls for this long, seconds. */
const GAP = 0.002;
const MOST_STEPS = 64;
const MOST_POINTS = 10_000;
/** A note may be off the grid by this share of a step. */
const OFF_GRID = 0.2;

const clamp = (volts: number): number => Math.min(REACH, Math.max(-REACH, volts));
const voltsOf = (note: number, { zeroNote, tuning }: MidiScale): number =>
  clamp(((tuning?.notes[note] ?? note) - zeroNote) / 12);

/** Held values over time as a gesture's points: from 0 s on, each moment once, the last word of a moment wins. */
function heldPoints(changes: readonly { readonly t: number; readonly volts: number }[]): GesturePoint[] {
  const points = new Map<number, number>([[0, changes[0]?.volts ?? 0]]);
  for (const { t, volts } of changes) points.set(Math.round(Math.max(0, t) * 1e5) / 1e5, volts);
  const sorted = [...points].sort(([a], [b]) => a - b).map(([t, volts]) => ({ t, volts }));
  return sorted.filter((p, i) => i === 0 || p.volts !== sorted[i - 1]?.volts).slice(0, MOST_POINTS);
}

/** A track's pitch, gate and velocity as held gestures: one voice, the latest note wins. */
export function midiVoltages(
  track: MidiTrack,
  scale: MidiScale,
): Readonly<Record<'pitch' | 'gate' | 'velocity', GesturePoint[]>> {
  const { notes } = track;
  const gate: { t: number; volts: number }[] = [{ t: 0, volts: 0 }];
  notes.forEach((n, i) => {
    const next = notes[i + 1]?.from ?? Infinity;
    gate.push({ t: n.from, volts: scale.gateVolts });
    // Notes that overlap are slurred: the gate stays. Notes that only touch are struck again.
    if (n.to <= next + 1e-6) gate.push({ t: Math.max(n.from + GAP / 2, Math.min(n.to, next - GAP)), volts: 0 });
  });
  return {
    pitch: heldPoints(notes.map((n) => ({ t: n.from, volts: voltsOf(n.note, scale) }))),
    gate: heldPoints(gate),
    velocity: heldPoints(notes.map((n) => ({ t: n.from, volts: clamp(n.velocity * scale.fullVolts) }))),
  };
}

/** From when on a track's voltages have more changes than a gesture holds, and are cut, seconds; null where they fit. */
export function midiCutAt(track: MidiTrack, scale: MidiScale, controllers: readonly number[]): number | null {
  const voices = track.notes.length > 0 ? Object.values(midiVoltages(track, scale)) : [];
  const moved = controllers.map((n) => midiController(track, n, scale));
  const full = [...voices, ...moved].filter((points) => points.length >= MOST_POINTS);
  const ends = full.map((points) => points.at(-1)?.t ?? 0);
  if (track.noteCount > track.notes.length) ends.push(track.notes.at(-1)?.from ?? 0);
  return ends.length > 0 ? Math.min(...ends) : null;
}

export function midiController(track: MidiTrack, number: number, scale: MidiScale): GesturePoint[] {
  const changes = track.controllers.get(number) ?? [];
  return heldPoints(changes.map(({ t, value }) => ({ t, volts: clamp(value * scale.fullVolts) })));
}

export interface MidiSteps {
  readonly steps: readonly Step[];
  /** Quarter notes a step, for the clock. */
  readonly beats: number;
}

/**
 * A track as a step sequence on a clock.
 *
 * @returns the coarsest grid from quarters to thirty-seconds that its notes lie on, in at most 64 steps; null where
 *   they lie on none, or need more.
 */
export function midiSteps({ notes }: MidiTrack, bpm: number, scale: MidiScale): MidiSteps | null {
  if (notes.length === 0 || notes.length > MOST_STEPS) return null;
  for (const beats of [1, 0.5, 0.25, 0.125]) {
    const length = (60 / bpm) * beats;
    const at = (t: number): number => Math.round(t / length);
    const fits = notes.every((n) => Math.abs(n.from / length - at(n.from)) <= OFF_GRID);
    const starts = new Set(notes.map((n) => at(n.from)));
    const count = notes.reduce((most, n) => Math.max(most, at(n.from) + 1, at(n.to)), 0);
    if (!fits || starts.size < notes.length || count > MOST_STEPS) continue;
    let volts = voltsOf(notes[0]?.note ?? scale.zeroNote, scale);
    const steps = Array.from({ length: count }, (_, step): Step => {
      const note = notes.find((n) => at(n.from) <= step && step < Math.max(at(n.from) + 1, at(n.to)));
      if (note) volts = voltsOf(note.note, scale);
      const on = note !== undefined;
      return { volts, gate: on, tie: on && step + 1 < at(note.to) && !starts.has(step + 1) };
    });
    return { steps, beats };
  }
  return null;
}
