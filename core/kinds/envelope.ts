import { exp } from '../law/fastmath';
import type { Lin } from '../law/lin';
import { Gate } from './detect';
import { control, gate, kind, always } from './kind';
import { choice, flag, number, seconds, volts } from './params';
import { briefSeconds } from '../units/show';

/** `end` is a pulse of this height and length. */
const END_VOLTS = 5;
const END_SECONDS = 0.005;

type Stage = 'idle' | 'attack' | 'hold' | 'decay' | 'release';

interface Settings {
  readonly mode: 'adsr' | 'ar' | 'ad' | 'loop';
  readonly attack: number;
  readonly decay: number;
  readonly release: number;
  readonly sustain: number;
  readonly attackCurve: number;
  readonly decayCurve: number;
}

/**
 * The stages of a contour, each moving by `y(x, c) = (1 − e^(−5cx))/(1 − e^(−5c))`: c > 0 fast then slow, c < 0 slow
 * then fast. Times within it are samples, with fractions.
 */
class Contour {
  stage: Stage = 'idle';
  /** When the last stage ended. */
  ended = -Infinity;
  private start = 0;
  private from = 0;
  private to = 0;
  private length = 1;
  private curve = 0;
  /** 1 / (1 − e^(−5c)) of the running stage. */
  private scale = 1;
  private peak = 0;

  constructor(
    private readonly p: Settings,
    private readonly sampleRate: number,
  ) {}

  private enter(stage: Stage, start: number, from: number): void {
    const { p } = this;
    this.stage = stage;
    this.start = start;
    this.from = from;
    const seconds = stage === 'attack' ? p.attack : stage === 'decay' ? p.decay : p.release;
    this.length = seconds * this.sampleRate;
    this.curve = stage === 'attack' ? p.attackCurve : p.decayCurve;
    this.scale = this.curve === 0 ? 1 : 1 / (1 - exp(-5 * this.curve));
    this.to = stage === 'attack' ? this.peak : stage === 'decay' && p.mode === 'adsr' ? p.sustain * this.peak : 0;
  }

  rise(k: number, peak: number): void {
    const from = this.level(k);
    this.peak = peak;
    this.enter('attack', k, from);
  }

  fall(k: number): void {
    if (this.stage !== 'idle' && this.stage !== 'release') this.enter('release', k, this.level(k));
  }

  /** The value which the running stage has at sample `k`. */
  level(k: number): number {
    if (this.stage === 'idle') return 0;
    if (this.stage === 'hold') return this.to;
    const x = Math.min(1, (k - this.start) / this.length);
    const y = this.curve === 0 ? x : (1 - exp(-5 * this.curve * x)) * this.scale;
    return this.from + (this.to - this.from) * y;
  }

  /** Whether the running stage is over at sample `k`. */
  due(k: number): boolean {
    if (this.stage === 'idle' || this.stage === 'hold') return false;
    return k >= this.start + this.length - 1e-9 * this.length;
  }

  /** Hands over to the stages that begin up to sample `k`; `again` is the next peak of a loop, or null. */
  advance(k: number, again: number | null): void {
    const { mode } = this.p;
    while (this.due(k)) {
      const end = this.start + this.length;
      if (this.stage === 'attack' && mode !== 'ar') this.enter('decay', end, this.to);
      else if (this.stage === 'attack' || (this.stage === 'decay' && mode === 'adsr')) this.stage = 'hold';
      else {
        this.stage = 'idle';
        this.ended = end;
        const peak = mode === 'loop' ? again : null;
        if (peak === null) return;
        this.peak = peak;
        this.enter('attack', end, 0);
      }
    }
  }
}

export const envelope = kind({
  name: 'envelope',
  title: 'Envelope',
  does: 'a contour that a gate starts',
  formula:
    'stages y(x, c) = (1 − e^(−5cx))/(1 − e^(−5c)) from the present level; adsr, ar, ad, loop; end: 5 V for 5 ms after the last stage',
  room: 'source',
  audio: false,
  params: {
    mode: choice(['adsr', 'ar', 'ad', 'loop']),
    attack: seconds(0.01, 0.0005, 60),
    decay: seconds(0.2, 0.0005, 60),
    release: seconds(0.3, 0.0005, 60),
    sustain: number(0.6, 0, 1),
    attackCurve: number(0.6, -1, 1),
    decayCurve: number(0.6, -1, 1, '', { says: 'also of the release' }),
    peakVolts: number(8, 0, 12, 'V'),
    thresholdVolts: volts(1),
    followsLevel: flag(false),
  },
  brief: (p) => `${p.mode.toUpperCase()}, ${briefSeconds(p.attack)} up`,
  inputs: (p) => [gate('gate', p.thresholdVolts), control('level')],
  outputs: () => ['out', 'inverted', 'end'],
  memory: always,
  free: (p, connected) => p.mode === 'loop' && !connected('gate'),
  period(p, steady) {
    if (p.mode !== 'loop' || steady('gate') === null || p.followsLevel) return 'none';
    // A sum of decimals, in units of a hundredth of a microsecond: exact for what can be typed.
    return { over: [Math.round((p.attack + p.decay) * 1e8)], under: [1e8] };
  },
  law(b, p, io): Record<string, Lin> {
    let [lo, hi] = [0, p.peakVolts];
    if (p.followsLevel) {
      const fed = io.range(io.in(io.connected('level') ? 'level' : 'gate'));
      [lo, hi] = [Math.min(0, fed[0]), Math.max(0, fed[1])];
    }
    const out = io.symbol('out', lo, hi);
    return { out, inverted: b.scale(out, -1), end: io.symbol('end', 0, END_VOLTS) };
  },
  negated: { inverted: 'out' },
  kernel(p, wiring) {
    const [out, end] = [wiring.output('out'), wiring.output('end')];
    const gateIn = wiring.input('gate');
    const levelIn = wiring.input(wiring.connected('level') ? 'level' : 'gate');
    const gated = wiring.connected('gate');
    const detector = new Gate(p.thresholdVolts);
    const contour = new Contour(p, wiring.sampleRate);
    const pulse = END_SECONDS * wiring.sampleRate;
    const peakAt = (i: number): number => (p.followsLevel ? (levelIn[i] as number) : p.peakVolts);
    return (from, to, k0) => {
      for (let i = from; i < to; i++) {
        const k = k0 + i;
        const wasHigh = detector.high;
        const rises = detector.rises(gateIn[i] as number);
        const open = detector.high || !gated;
        if (contour.due(k)) contour.advance(k, open ? peakAt(i) : null);
        if (rises) contour.rise(k, peakAt(i));
        else if (k === 0 && !gated && p.mode === 'loop') contour.rise(0, peakAt(i));
        else if (wasHigh && !detector.high && (p.mode === 'adsr' || p.mode === 'ar')) contour.fall(k);
        out[i] = contour.level(k);
        end[i] = k >= contour.ended - 1e-6 && k < contour.ended + pulse - 1e-6 ? END_VOLTS : 0;
      }
    };
  },
});
