import { gainOf } from '../units/ratios';
import { Limiter } from './limiter';

/** What a volt is of full scale before the listening level. */
export const VOLT = 0.1;
/** Where the listening level starts and ends, dB. */
export const START_DB = -30;
export const MOST_DB = 0;
export const LEAST_DB = -60;
/** What comes out never passes this, between samples either, dB full scale. */
export const CEILING_DB = -1;
/** Seconds over which sound comes in. */
export const FADE_IN = 0.3;
/** Below this nothing is heard of constant voltage, Hz. */
const BLOCK_HZ = 10;
/** A jump of more than this many dB within 50 ms is held back. */
const JUMP_DB = 12;
/** What is quieter than this may begin as it likes, dB full scale. */
const QUIET_DB = -30;
/** How far back the loudest sound counts as heard, seconds. */
const HEARD_SECONDS = 10;
/** For how long after a start or an edit a jump is held back, seconds. */
const GUARD_SECONDS = 3;
/** How long the level takes to follow its knob, seconds. */
const GLIDE = 0.02;
const STOP = 0.003;
/** Half of a switch from one side of a comparison to the other, seconds. */
const SWITCH = 0.01;

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
  private balance = { left: 1, right: 1 };
  private readonly sides = { left: 1, right: 1 };
  private fade = 0;
  private dip = 1;
  private dipStep = 0;
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

  /** The same at once: only while nothing is heard, at the bottom of a dip. */
  switchMatch(db: number): void {
    this.matchWanted = gainOf(db);
    this.match = this.matchWanted;
  }

  /** Goes down to nothing within half a switch, or comes back up. */
  dipTo(up: boolean): void {
    this.dipStep = (up ? 1 : -1) / (SWITCH * this.sampleRate);
  }

  /** It is at the bottom of a dip. */
  get isDipped(): boolean {
    return this.dip === 0;
  }

  /** How loud the ears are beside each other: -1 only the left one, 1 only the right one, 0 both in full. */
  setBalance(balance: number): void {
    const held = Math.min(1, Math.max(-1, balance));
    this.balance = { left: Math.min(1, 1 - held), right: Math.min(1, 1 + held) };
  }

  /** Something else than playing may make a jump from now on: an edit, a switch, other ears. */
  guard(): void {
    this.jumps.guard();
  }

  /** Comes in anew, from silence. */
  start(): void {
    this.guard();
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
      const { sides, balance } = this;
      sides.left += (balance.left - sides.left) * this.glide;
      sides.right += (balance.right - sides.right) * this.glide;
      const l = this.left.next((leftVolts[i] as number) * VOLT) * sides.left;
      const r = this.right.next((rightVolts[i] as number) * VOLT) * sides.right;
      this.level += (this.wanted - this.level) * this.glide;
      this.match += (this.matchWanted - this.match) * this.glide;
      this.fade = Math.min(1, Math.max(0, this.fade + this.fadeStep));
      this.dip = Math.min(1, Math.max(0, this.dip + this.dipStep));
      const gain = this.level * this.match * this.fade * this.dip;
      const size = Math.max(Math.abs(l), Math.abs(r));
      const held = this.jumps.gain(size * gain, size * this.wanted * this.matchWanted);
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

/** A stretch whose loudest sample is kept, seconds. */
const STRETCH = 0.05;

/**
 * Holds back what is suddenly far louder than all that was heard lately, where something else than playing made it: for
 * some seconds after it was opened, what comes may stand 12 dB above the loudest of the last ten seconds, and comes up by
 * as much in 50 ms. A note that was heard once is no jump.
 */
class Jumps {
  private readonly quiet = gainOf(QUIET_DB);
  private readonly jump = gainOf(JUMP_DB);
  /** Samples for which it is open. */
  private open = 0;
  private readonly opens: number;
  /** What comes now, and the gain that it is given. */
  private now = 0;
  private held = 1;
  private least = 1;
  /** The loudest of each stretch of the last ten seconds, the running one, and the loudest of all but the last two. */
  private readonly stretches = new Float64Array(Math.round(HEARD_SECONDS / STRETCH));
  private at = 0;
  private running = 0;
  private count = 0;
  private last = 0;
  private lately = 0;
  private readonly length: number;
  private readonly decay: number;
  private readonly rise: number;

  constructor(sampleRate: number) {
    this.opens = GUARD_SECONDS * sampleRate;
    this.length = Math.round(STRETCH * sampleRate);
    this.decay = Math.exp(-1 / (STRETCH * sampleRate));
    this.rise = gainOf(JUMP_DB / (STRETCH * sampleRate));
  }

  /** Something else than playing may make a jump from now on. */
  guard(): void {
    this.open = this.opens;
  }

  /** What a sample of this size is multiplied by; `whole` is its size once it is all there, which is what counts later. */
  gain(size: number, whole: number): number {
    this.keep(whole);
    this.now = Math.max(size, this.now * this.decay);
    const most = Math.max(this.quiet, this.lately) * this.jump;
    const wanted = this.open > 0 && this.now > most ? most / this.now : 1;
    if (this.open > 0) this.open--;
    this.held = Math.min(wanted, this.held * this.rise);
    this.least = Math.min(this.least, this.held);
    return this.held;
  }

  private keep(size: number): void {
    if (size > this.running) this.running = size;
    if (++this.count < this.length) return;
    this.stretches[this.at] = this.last;
    this.at = (this.at + 1) % this.stretches.length;
    this.lately = this.stretches.reduce((a, b) => Math.max(a, b), 0);
    this.last = this.running;
    this.running = 0;
    this.count = 0;
  }

  heldBack(): number {
    const db = -20 * Math.log10(this.least);
    this.least = 1;
    return db;
  }
}
