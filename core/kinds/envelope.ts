import { exp, exp2 } from '../law/fastmath';
import type { Affine } from '../law/affine';
import { fallsEver, gateStateOf, keptGate } from './detect';
import { control, gate, kind, always } from './kind';
import { choice, flag, number, seconds, volts, setUp } from './params';
import { briefSeconds } from '../units/show';

/** How high `end` and `rising` are, and how long `end` is. */
const END_VOLTS = 5;
const END_SECONDS = 0.005;

type Stage = 'idle' | 'attack' | 'hold' | 'decay' | 'release';

interface Settings {
  readonly timeAmount: number;
  readonly mode: 'adsr' | 'ar' | 'ad' | 'loop';
  readonly attack: number;
  readonly decay: number;
  readonly release: number;
  readonly sustain: number;
  readonly attackCurve: number;
  readonly decayCurve: number;
  readonly restVolts: number;
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
  /** What the running stage's time is multiplied by, as it was when it began. */
  private stretch = 1;
  private peak: number;

  constructor(
    private p: Settings,
    private readonly sampleRate: number,
  ) {
    this.peak = p.restVolts;
  }

  /**
   * Goes on with other settings from sample `k` on, as far within its stage as it is.
   *
   * @param stretch of now, for where the amount that makes it was turned.
   * @param open the gate is high, or there is none.
   */
  retune(p: Settings, k: number, stretch: number, open: boolean): void {
    if (p === this.p) return;
    const level = this.level(k);
    const done = (k - this.start) / this.length;
    const then = p.timeAmount === this.p.timeAmount ? this.stretch : stretch;
    const before = this.p.mode;
    this.p = p;
    if (this.stage === 'idle') return;
    const { stage, from } = this;
    const other = p.mode === before ? null : this.stageIn(p.mode, open);
    // A decay of another mode leads elsewhere: it goes on from the level that there is.
    if (other !== null && (other !== stage || stage === 'decay')) this.enter(other, k, level, then);
    else if (stage === 'hold') this.to = p.mode === 'adsr' ? this.heldAt() : this.peak;
    else {
      this.enter(stage, k, from, then);
      this.start = k - done * this.length;
    }
  }

  /** The stage in which another mode goes on from the present one. */
  private stageIn(mode: Settings['mode'], open: boolean): Stage {
    const { stage } = this;
    const runsOut = mode === 'ad' || mode === 'loop';
    if (runsOut) return stage === 'hold' || stage === 'release' ? 'decay' : stage;
    // What follows the gate lets go where it is down, and holds, or goes to where it holds, where it is up.
    if (!open) return 'release';
    if (stage === 'attack') return stage;
    return mode === 'ar' ? 'attack' : 'decay';
  }

  private heldAt(): number {
    return this.p.restVolts + this.p.sustain * (this.peak - this.p.restVolts);
  }

  /** @param stretch what its time is multiplied by. */
  private enter(stage: Stage, start: number, from: number, stretch: number): void {
    const { p } = this;
    this.stage = stage;
    this.start = start;
    this.from = from;
    this.stretch = stretch;
    const seconds = stage === 'attack' ? p.attack : stage === 'decay' ? p.decay : p.release;
    this.length = Math.max(1, seconds * stretch * this.sampleRate);
    this.curve = stage === 'attack' ? p.attackCurve : p.decayCurve;
    this.scale = this.curve === 0 ? 1 : 1 / (1 - exp(-5 * this.curve));
    this.to = stage === 'attack' ? this.peak : stage === 'decay' && p.mode === 'adsr' ? this.heldAt() : p.restVolts;
  }

  rise(k: number, peak: number, stretch: number): void {
    const from = this.level(k);
    this.peak = peak;
    this.enter('attack', k, from, stretch);
  }

  fall(k: number, stretch: number): void {
    if (this.stage !== 'idle' && this.stage !== 'release') this.enter('release', k, this.level(k), stretch);
  }

  /** The value which the running stage has at sample `k`. */
  level(k: number): number {
    if (this.stage === 'idle') return this.p.restVolts;
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
  advance(k: number, again: number | null, stretch: number): void {
    const { mode } = this.p;
    while (this.due(k)) {
      const end = this.start + this.length;
      if (this.stage === 'attack' && mode !== 'ar') this.enter('decay', end, this.to, stretch);
      else if (this.stage === 'attack' || (this.stage === 'decay' && mode === 'adsr')) this.stage = 'hold';
      else {
        this.stage = 'idle';
        this.ended = end;
        const peak = mode === 'loop' ? again : null;
        if (peak === null) return;
        this.peak = peak;
        this.enter('attack', end, this.p.restVolts, stretch);
      }
    }
  }
}

export const envelope = kind({
  name: 'envelope',
  title: 'Envelope',
  does: 'a shape started by a gate',
  aliases: ['ADSR', 'EG', 'contour'],
  words: {
    params: {
      mode: 'Mode',
      attack: 'Attack',
      decay: 'Decay',
      release: 'Release',
      sustain: 'Sustain',
      attackCurve: 'Attack curve',
      decayCurve: 'Decay and release curve',
      peakVolts: 'Peak level',
      restVolts: 'Resting level',
      timeAmount: 'Time CV amount',
      thresholdVolts: 'Gate threshold',
      followsLevel: 'Peak follows Level input',
      tracksLevel: 'Output tracks Level input',
    },
    says: {
      followsLevel: 'uses the gate’s voltage if Level is unpatched',
      tracksLevel: 'at every moment, not only as it starts; the gate’s last voltage if Level is unpatched',
    },
    options: { mode: { adsr: 'ADSR', ar: 'AR', ad: 'AD', loop: 'Looping AD' } },
  },
  formula:
    'stages y(x, c) = (1 − e^(−5cx))/(1 − e^(−5c)) from the present level; adsr, ar, ad, loop, from and to restVolts; times·2^(timeAmount·time), read as a stage begins; end: 5 V for 5 ms after the last stage; rising: 5 V during the attack; falling: 5 V from its end to that of the contour; tracksLevel: out = restVolts + u·(level − restVolts), u the contour from 0 to 1',
  category: 'source',
  timing: {
    contour: {
      gate: 'gate',
      rests: (p, output) => (output === 'out' ? p.restVolts : output === 'inverted' ? -p.restVolts : 0),
      bends: ['attackCurve', 'decayCurve'],
    },
    stages: (p) => [
      { param: 'attack', up: true, curve: p.attackCurve },
      { param: 'decay', up: false, curve: p.decayCurve },
      { param: 'release', up: false, curve: p.decayCurve },
    ],
    gates: ['end', 'rising', 'falling'],
  },
  params: {
    mode: choice(['adsr', 'ar', 'ad', 'loop']),
    attack: seconds(0.01, 0.0005, 60),
    decay: seconds(0.2, 0.0005, 60),
    release: seconds(0.3, 0.0005, 60),
    sustain: number(0.6, 0, 1),
    attackCurve: number(0.6, -1, 1),
    decayCurve: number(0.6, -1, 1),
    peakVolts: number(8, 0, 12, 'V'),
    restVolts: volts(0),
    timeAmount: number(0, -1, 1),
    thresholdVolts: setUp(volts(1)),
    followsLevel: flag(false),
    tracksLevel: flag(false),
  },
  panel: {
    check: (p) =>
      p.followsLevel && p.tracksLevel
        ? {
            param: 'tracksLevel',
            message: 'must be off while followsLevel is on: the peak follows the level, or all of it does',
          }
        : null,
  },
  brief: (p) => `${p.mode === 'loop' ? 'looping AD' : p.mode.toUpperCase()}, attack ${briefSeconds(p.attack)}`,
  scale: { times: ['attack', 'decay', 'release'] },
  inputs: (p) => [gate('gate', p.thresholdVolts), control('level'), control('time', 0, 'timeAmount')],
  outputs: () => ['out', 'inverted', 'end', 'rising', 'falling'],
  source: {
    hertz: (p) => (p.mode === 'loop' ? 1 / (p.attack + p.decay) : 0),
    free: (p, connected) => p.mode === 'loop' && !connected('gate'),
    period(p, { steady, connected }) {
      const gate = steady('gate');
      if (p.mode !== 'loop' || gate === null || (connected('gate') && gate < p.thresholdVolts)) return 'none';
      const cv = p.timeAmount === 0 ? 0 : steady('time');
      if (cv === null) return 'never';
      // A sum of decimals, in units of a hundredth of a microsecond: exact for what can be typed.
      return { over: [Math.round((p.attack + p.decay) * 2 ** (p.timeAmount * cv) * 1e8)], under: [1e8] };
    },
  },
  memory: always,
  law(b, p, io): Record<string, Affine> {
    const loops = p.mode === 'loop' && !io.connected('gate');
    if (!loops && gateStateOf(io, 'gate', p.thresholdVolts) === 'low') {
      const rest = b.constant(p.restVolts);
      const low = b.constant(0);
      return { out: rest, inverted: b.scale(rest, -1), end: low, rising: low, falling: low };
    }
    const fed =
      p.followsLevel || p.tracksLevel
        ? io.range(io.in(io.connected('level') ? 'level' : 'gate'))
        : [p.peakVolts, p.peakVolts];
    const peaks = [p.restVolts, fed[0] ?? 0, fed[1] ?? 0];
    const out = io.symbol('out', Math.min(...peaks), Math.max(...peaks));
    const ends = p.mode === 'ad' || p.mode === 'loop' || fallsEver(io, 'gate', p.thresholdVolts);
    return {
      out,
      inverted: b.scale(out, -1),
      end: ends ? io.symbol('end', 0, END_VOLTS) : b.constant(0),
      rising: io.symbol('rising', 0, END_VOLTS),
      falling: io.symbol('falling', 0, END_VOLTS),
    };
  },
  negated: { inverted: 'out' },
  kernel(p, wiring) {
    const [out, end, rising, falling] = ['out', 'end', 'rising', 'falling'].map((name) => wiring.output(name)) as [
      Float64Array,
      Float64Array,
      Float64Array,
      Float64Array,
    ];
    const time = wiring.input('time');
    const gateIn = wiring.input('gate');
    const levelIn = wiring.input(wiring.connected('level') ? 'level' : 'gate');
    const gated = wiring.connected('gate');
    const detector = keptGate(wiring, 'gate', p.thresholdVolts);
    const settings = p.tracksLevel ? { ...p, restVolts: 0 } : p;
    const contour = wiring.keep(p.tracksLevel ? 'unit' : 'contour', () => new Contour(settings, wiring.sampleRate));
    const level = wiring.keep('level', () => ({ volts: 0 }));
    const pulse = END_SECONDS * wiring.sampleRate;
    const stretchAt = (i: number): number => (p.timeAmount === 0 ? 1 : exp2(p.timeAmount * (time[i] as number)));
    const peakAt = (i: number): number => (p.tracksLevel ? 1 : p.followsLevel ? (levelIn[i] as number) : p.peakVolts);
    const tracked = wiring.connected('level');
    const outAt = (i: number, u: number): number => {
      if (!p.tracksLevel) return u;
      if (tracked || detector.high) level.volts = levelIn[i] as number;
      return p.restVolts + u * (level.volts - p.restVolts);
    };
    return (from, to, k0) => {
      contour.retune(settings, k0 + from, stretchAt(from), detector.high || !gated);
      for (let i = from; i < to; i++) {
        const k = k0 + i;
        const wasHigh = detector.high;
        const rises = detector.rises(gateIn[i] as number);
        const open = detector.high || !gated;
        if (contour.due(k)) contour.advance(k, open ? peakAt(i) : null, stretchAt(i));
        if (rises) contour.rise(k, peakAt(i), stretchAt(i));
        else if (!gated && p.mode === 'loop' && contour.stage === 'idle') contour.rise(k, peakAt(i), stretchAt(i));
        else if (wasHigh && !detector.high && (p.mode === 'adsr' || p.mode === 'ar')) contour.fall(k, stretchAt(i));
        out[i] = outAt(i, contour.level(k));
        rising[i] = contour.stage === 'attack' ? END_VOLTS : 0;
        falling[i] = contour.stage === 'attack' || contour.stage === 'idle' ? 0 : END_VOLTS;
        end[i] = k >= contour.ended - 1e-6 && k < contour.ended + pulse - 1e-6 ? END_VOLTS : 0;
      }
    };
  },
  ends: [
    {
      socket: 'time',
      sockets: ['time'],
      quantity: 'factor',
      unit: () => '×',
      always: false,
      says: 'what its times are multiplied by as a stage begins',
      drive: (b, p, io) => b.scale(io.in('time'), p.timeAmount),
      value: (_p, v) => 2 ** v,
      window: () => null,
    },
    {
      socket: 'time',
      sockets: ['time'],
      quantity: 'rate',
      further: true,
      exists: (p) => p.mode === 'loop',
      unit: () => 'Hz',
      always: false,
      says: 'how often it loops',
      drive: (b, p, io) => b.scale(io.in('time'), -p.timeAmount),
      value: (p, v) => 2 ** v / (p.attack + p.decay),
      window: () => null,
    },
  ],
});
