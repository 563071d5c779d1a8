import { TRACE_PAIRS } from '@/wire/live';
import type { LiveReport } from '@/wire/live';

/** Reports of the last second, at sixty a second. */
const SECOND = 60;
/** Pairs of a running trace: the last four seconds. */
const PAIRS = 4 * SECOND * TRACE_PAIRS;

/** What a socket did in the last second, volts. */
export interface Metered {
  readonly now: number;
  readonly low: number;
  readonly high: number;
}

/** The least and the greatest of a running trace, the latest last, volts. */
export interface Running {
  readonly low: Float32Array;
  readonly high: Float32Array;
}

/**
 * What is seen while a patch plays. It changes with every frame, so nothing of it is state of a component: who draws
 * it asks, and draws by himself.
 */
class Meters {
  /** Seconds of play at the last report. */
  seconds = 0;
  /** Pairs of the running traces that came since what is traced was chosen. */
  pairs = 0;
  private sockets: readonly string[] = [];
  private traced: readonly string[] = [];
  private index = new Map<string, number>();
  private lows: Float32Array = new Float32Array(0);
  private highs: Float32Array = new Float32Array(0);
  private nows: Float32Array = new Float32Array(0);
  private running: Running[] = [];
  private at = 0;
  private filled = 0;

  /** Begins anew with other sockets. */
  watch(sockets: readonly string[], traced: readonly string[]): void {
    this.sockets = sockets;
    this.index = new Map(sockets.map((s, i) => [s, i]));
    this.lows = new Float32Array(sockets.length * SECOND);
    this.highs = new Float32Array(sockets.length * SECOND);
    this.nows = new Float32Array(sockets.length);
    if (traced.join() !== this.traced.join())
      this.running = traced.map(() => ({ low: new Float32Array(PAIRS), high: new Float32Array(PAIRS) }));
    this.traced = traced;
    this.at = 0;
    this.filled = 0;
  }

  add({ watched, traced, samples, sampleRate }: LiveReport): void {
    this.seconds = samples / sampleRate;
    // A report of what was watched before.
    if (watched.length !== 3 * this.sockets.length || traced.length !== 2 * TRACE_PAIRS * this.traced.length) return;
    for (let i = 0; i < this.sockets.length; i++) {
      this.nows[i] = watched[3 * i] as number;
      this.lows[i * SECOND + this.at] = watched[3 * i + 1] as number;
      this.highs[i * SECOND + this.at] = watched[3 * i + 2] as number;
    }
    this.at = (this.at + 1) % SECOND;
    this.filled = Math.min(SECOND, this.filled + 1);
    this.pairs += TRACE_PAIRS;
    this.running.forEach(({ low, high }, i) => {
      low.copyWithin(0, TRACE_PAIRS);
      high.copyWithin(0, TRACE_PAIRS);
      for (let j = 0; j < TRACE_PAIRS; j++) {
        low[PAIRS - TRACE_PAIRS + j] = traced[2 * (i * TRACE_PAIRS + j)] as number;
        high[PAIRS - TRACE_PAIRS + j] = traced[2 * (i * TRACE_PAIRS + j) + 1] as number;
      }
    });
  }

  /** What a socket does now and did in the last second; null where it is not watched or nothing came yet. */
  of(socket: string): Metered | null {
    const i = this.index.get(socket);
    if (i === undefined || this.filled === 0) return null;
    let [low, high] = [Infinity, -Infinity];
    for (let k = 0; k < this.filled; k++) {
      low = Math.min(low, this.lows[i * SECOND + k] as number);
      high = Math.max(high, this.highs[i * SECOND + k] as number);
    }
    return { now: this.nows[i] as number, low, high };
  }

  trace(socket: string): Running | null {
    return this.running[this.traced.indexOf(socket)] ?? null;
  }
}

export const meters = new Meters();
