import { scaleSemitones, scaleText } from '../units/scales';
import { gateStateOf, keptGate } from './detect';
import { gate, kind, signal } from './kind';
import { choice, number, setUp } from './params';
import type { Scale, ScaleSpec } from './params';

const scale: ScaleSpec = { type: 'scale', default: 'chromatic' };

/** Half way between two notes is half way to this; the upper one wins. Semitones. */
const TIE = 1e-9;

interface Notes {
  readonly scale: Scale;
  readonly root: number;
  readonly accepts: 'both' | 'positive';
}

/** The nearest note's voltage, ties upward; below 0 V counts as 0 where only positive voltage is taken. */
export function nearestNote(p: Notes): (volts: number) => number {
  const degrees = scaleSemitones(p.scale);
  const last = degrees[degrees.length - 1] as number;
  return (volts) => {
    const semitones = 12 * (p.accepts === 'positive' ? Math.max(0, volts) : volts) - p.root;
    const octave = Math.floor(semitones / 12);
    const within = semitones - 12 * octave;
    let below = last - 12;
    let above = (degrees[0] as number) + 12;
    for (const d of degrees) {
      if (d <= within) below = d;
      else {
        above = d;
        break;
      }
    }
    const note = above - within <= within - below + TIE ? above : below;
    return (12 * octave + note + p.root) / 12;
  };
}

export const quantizer = kind({
  name: 'quantizer',
  title: 'Quantizer',
  does: 'rounds a voltage to the notes of a scale',
  words: {
    params: { scale: 'Scale', root: 'Root', accepts: 'Input range', hysteresisCents: 'Hysteresis' },
    says: { scale: 'a name, or semitones from 0 to 12, fractions allowed' },
    options: { accepts: { both: 'Bipolar', positive: 'Positive only' } },
  },
  formula:
    'nearest note of the scale at 1 V an octave, ties upward; positive: below 0 counts as 0 first; hysteresisCents: a note is left only that far past the middle; with trigger plugged only at its rising edges (1 V), 0 V before',
  category: 'between',
  source: {
    notes: () => true,
  },
  stage: {
    positiveOnly: (p) => p.accepts === 'positive',
  },
  params: {
    scale,
    root: number(0, 0, 11, 'semitones', { whole: true }),
    accepts: choice(['both', 'positive']),
    hysteresisCents: setUp(number(0, 0, 50, 'ct')),
  },
  brief: (p) => scaleText(p.scale),
  inputs: () => [signal('in'), gate('trigger')],
  outputs: () => ['out'],
  timing: {
    holds: 'trigger',
  },
  memory: (p, connected) => connected('trigger') || p.hysteresisCents > 0,
  law(b, p, io) {
    const nearest = nearestNote(p);
    if (!io.connected('trigger') && p.hysteresisCents === 0) {
      const key = `notes ${p.root} ${p.accepts} ${String(p.scale)}`;
      return { out: b.curve(io.in('in'), { key, f: nearest, minSlope: () => 0 }) };
    }
    const [lo, hi] = io.range(io.in('in')).map(nearest) as [number, number];
    const gateState = io.connected('trigger') ? gateStateOf(io, 'trigger', 1) : 'high';
    if (gateState === 'low') return { out: b.constant(0) };
    const before = gateState === 'high' ? lo : 0;
    return { out: io.symbol('out', Math.min(before, lo), Math.max(before, hi)) };
  },
  kernel(p, wiring) {
    const [input, trigger, out] = [wiring.input('in'), wiring.input('trigger'), wiring.output('out')];
    const triggered = wiring.connected('trigger');
    const nearest = nearestNote(p);
    const detector = keptGate(wiring, 'trigger', 1);
    const margin = (2 * p.hysteresisCents) / 1200;
    const state = wiring.keep('state', (): { note: number | null } => ({ note: null }));
    let [last, lastNote] = [NaN, 0];
    return (from, to) => {
      for (let i = from; i < to; i++) {
        if (!triggered || detector.rises(trigger[i] as number)) {
          const x = p.accepts === 'positive' ? Math.max(0, input[i] as number) : (input[i] as number);
          if (x !== last) {
            last = x;
            lastNote = nearest(x);
          }
          const { note } = state;
          if (note === null || Math.abs(x - note) - Math.abs(x - lastNote) > margin || margin === 0)
            state.note = lastNote;
        }
        out[i] = state.note ?? 0;
      }
    };
  },
  ends: [
    {
      socket: 'in',
      sockets: ['in'],
      quantity: 'note',
      unit: () => 'V',
      always: false,
      says: 'one volt an octave, rounded to its scale',
      drive: (_b, _p, io) => io.in('in'),
      value: (p, v) => nearestNote(p)(v),
      window: (p) => [p.accepts === 'positive' ? 0 : -12, 12],
    },
  ],
});
