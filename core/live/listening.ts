import { gainOf } from '../units/ratios';
import { Limiter } from './limiter';

/** What a volt is of full scale before the listening level. */
export const VOLT = 0.1;
/** Where the listening level starts and ends, dB. */
export const START_DB = -30;
export const MOST_DB = 0;
export const LEAST_DB = -60;
/** What comes out never passes this, dB full scale. */
export const CEILING_DB = -1;
/** Seconds over which sound comes in. */
export const FADE_IN = 0.3;
/** Below this nothing is heard of constant voltage, Hz. */
const BLOCK_HZ = 10;
/** A jump of more than this many dB within this many seconds is held back. */
const JUMP_DB = 12;
const JUMP_SECONDS = 0.05;
/** What is quieter than this may begin as it likes, dB full scale. */
const QUIET_DB = -30;
/** How far back the loudest sound counts as heard, seconds. */
const HEARD_SECONDS = 3;
/** How fast what was held back comes, dB a second. */
const RISE_DB = 24;
/** How long the level takes to follow its knob, seconds. */
const GLIDE = 0.02;
const STOP = 0.003;

/** What a listener is told of the last stretch. */
export interface Heard {
  /** Greatest sample, of full scale. */
  readonly peak: number;
  readonly rms: number;
  /** What the limiter took away, dB. */
  readonly reduction: number;
  /** What a jump was held back by, dB. */
  readonly heldBack: number;
}

/** Takes away constant voltage; one channel. */
export class Blocker {
  private before = 0;
  private out = 0;
  private readonly pole: number;

  constructor(sampleRate: number) {
    this.pole = Math.exp((-2 * Math.PI * BLOCK_HZ) / sampleRate);
  }

  next(x: number): number {
    this.out = x - this.before + this.pole * this.out;
    this.before = x;
    return this.out;
  }
}

/**
 * The way from voltages to ears: constant voltage blocked, faded in, at the listening level, jumps held back, limited.
 * Two channels.
 */
export class Listening {
  private readonly limiter: Limiter;
  private readonly ceiling = gainOf(CEILING_DB);
  private readonly left: Blocker;
  private readonly right: Blocker;
  private readonly glide: number;
  private level = 0;
  private wanted = gainOf(START_DB);
  private match = 1;
  private matchWanted = 1;
  private fade = 0;
  private fadeStep: number;
  private readonly jumps: Jumps;
  private peak = 0;
  private squares = 0;
  private counted = 0;

  constructor(private readonly sampleRate: number) {
    this.limiter = new Limiter(sampleRate, this.ceiling);
    this.jumps = new Jumps(sampleRate);
    this.left = new Blocker(sampleRate);
    this.right = new Blocker(sampleRate);
    this.glide = -Math.expm1(-1 / (GLIDE * sampleRate));
    this.fadeStep = 1 / (FADE_IN * sampleRate);
    this.level = this.wanted;
  }

  /** The listening level, dB; held between its ends. */
  setLevel(db: number): void {
    this.wanted = db <= LEAST_DB ? 0 : gainOf(Math.min(MOST_DB, db));
  }

  /** What makes two things that are compared equally loud, dB. */
  setMatch(db: number): void {
    this.matchWanted = gainOf(db);
  }

  /** Comes in anew, from silence. */
  start(): void {
    this.fade = 0;
    this.fadeStep = 1 / (FADE_IN * this.sampleRate);
  }

  /** Falls silent at once, without a click. */
  stop(): void {
    this.fadeStep = -1 / (STOP * this.sampleRate);
  }

  /** Volts in, full scale out. */
  process(
    leftVolts: Float64Array,
    rightVolts: Float64Array,
    left: Float32Array,
    right: Float32Array,
    count: number,
  ): void {
    for (let i = 0; i < count; i++) {
      const l = this.left.next((leftVolts[i] as number) * VOLT);
      const r = this.right.next((rightVolts[i] as number) * VOLT);
      this.level += (this.wanted - this.level) * this.glide;
      this.match += (this.matchWanted - this.match) * this.glide;
      this.fade = Math.min(1, Math.max(0, this.fade + this.fadeStep));
      const gain = this.level * this.match * this.fade;
      const held = this.jumps.gain(Math.max(Math.abs(l), Math.abs(r)) * gain);
      left[i] = l * gain * held;
      right[i] = r * gain * held;
    }
    this.limiter.process(left, right, count);
    for (let i = 0; i < count; i++) {
      const [l, r] = [left[i] as number, right[i] as number];
      this.peak = Math.max(this.peak, Math.abs(l), Math.abs(r));
      this.squares += (l * l + r * r) / 2;
    }
    this.counted += count;
  }

  /** What was heard since it was last asked. */
  heard(): Heard {
    const heard = {
      peak: this.peak,
      rms: Math.sqrt(this.squares / Math.max(1, this.counted)),
      reduction: this.limiter.reduction(),
      heldBack: this.jumps.heldBack(),
    };
    this.peak = 0;
    this.squares = 0;
    this.counted = 0;
    return heard;
  }
}

/**
 * Holds back what is suddenly far louder than all that was heard lately: it begins 12 dB above that, and comes up
 * slowly from there. What was loud a moment ago may be loud again.
 */
class Jumps {
  private readonly quiet = gainOf(QUIET_DB);
  private readonly jump = gainOf(JUMP_DB);
  /** What is heard now, and the loudest of late. */
  private now = 0;
  private lately = this.quiet;
  private least = 1;
  private readonly decay: number;
  private readonly fall: number;
  private readonly rise: number;

  constructor(sampleRate: number) {
    this.decay = Math.exp(-1 / (JUMP_SECONDS * sampleRate));
    this.fall = gainOf(-JUMP_DB / (HEARD_SECONDS * sampleRate));
    this.rise = gainOf(RISE_DB / sampleRate);
  }

  /** What a sample of this size is multiplied by. */
  gain(size: number): number {
    this.now = Math.max(size, this.now * this.decay);
    const most = this.lately * this.jump;
    const out = Math.min(this.now, most);
    this.lately =
      out > this.lately ? Math.min(out, this.lately * this.rise) : Math.max(this.quiet, out, this.lately * this.fall);
    const gain = this.now > most ? most / this.now : 1;
    this.least = Math.min(this.least, gain);
    return gain;
  }

  heldBack(): number {
    const db = -20 * Math.log10(this.least);
    this.least = 1;
    return db;
  }
}
