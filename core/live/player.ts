import type { Patch } from '../document/types';
import type { AssetLookup } from '../kinds/kind';
import { buildGraph } from '../graph/graph';
import type { Graph } from '../graph/graph';
import { LiveEngine } from './engine';
import type { SavedRun } from './engine';
import type { Ears } from './ears';
import { Listening } from './listening';
import { isSeamless, Seam } from './seam';
import type { Heard } from './listening';
import { Ticks } from './ticks';
import { Tone } from './tone';

type Listened = Pick<Ears, 'left' | 'right' | 'gain'>;

/** The same patch at the device's own rate. */
export function graphAt(patch: Patch, sampleRate: number): Graph {
  return { ...buildGraph(patch), sampleRate };
}

/** Blocks that are worked out at once, unheard, on the way to where a loop begins. */
const AHEAD = 4;

/** A stretch that is played over and over, samples. */
interface Loop {
  readonly from: number;
  readonly to: number;
  /** What was remembered where it begins; null until that was reached. */
  saved: SavedRun | null;
}

/** A patch that is played without an end, as it is heard by two ears. */
export class Player {
  readonly listening: Listening;
  private running: LiveEngine;
  private readonly left: Float64Array;
  private readonly right: Float64Array;
  private readonly seams: { readonly left: Seam; readonly right: Seam };
  private readonly tone: Tone;
  private readonly ticks: Ticks;
  /** The socket whose voltage is heard as a tone. */
  private toneFrom: string | null = null;
  private graph: Graph;
  /** The side that is gone over to. */
  private other: { readonly patch: Patch; readonly ears: Listened; readonly matchDb: number } | null = null;
  private loop: Loop | null = null;
  /** On the way to where the loop begins: falling silent, then unheard. */
  private seeking: 'no' | 'falls' | 'unheard' = 'no';

  constructor(
    patch: Patch,
    readonly sampleRate: number,
    private ears: Listened,
    private readonly asset?: AssetLookup,
  ) {
    this.graph = graphAt(patch, sampleRate);
    this.running = this.begin();
    this.seams = { left: new Seam(sampleRate), right: new Seam(sampleRate) };
    this.listening = new Listening(sampleRate);
    this.tone = new Tone(sampleRate);
    this.ticks = new Ticks(sampleRate);
    const { block } = this.running;
    this.left = new Float64Array(block);
    this.right = new Float64Array(block);
  }

  get engine(): LiveEngine {
    return this.running;
  }

  private begin(): LiveEngine {
    return new LiveEngine(this.graph, this.asset ? { asset: this.asset } : {});
  }

  /** Goes over to the other side of a comparison: down, across with both gains in place, and up, in 20 ms. */
  switchTo(patch: Patch, ears: Listened, matchDb: number): void {
    this.other = { patch, ears, matchDb };
    this.listening.dipTo(false);
  }

  /** @param played a hand plays: what jumps then is meant. */
  edit(patch: Patch, ears: Listened, played = false): void {
    if (this.other) {
      this.other = { ...this.other, patch, ears };
      return;
    }
    const before = { graph: this.graph, ears: this.ears };
    this.goOn(patch, ears);
    if (!played) this.listening.guard();
    for (const side of ['left', 'right'] as const) {
      const same = before.ears[side] === ears[side] && before.ears.gain === ears.gain;
      if (!same || !isSeamless(before.graph, this.graph, ears[side])) this.seams[side].open();
    }
  }

  private goOn(patch: Patch, ears: Listened): void {
    this.graph = graphAt(patch, this.sampleRate);
    this.running.edit(this.graph);
    this.ears = ears;
  }

  /**
   * Plays a stretch over and over, or goes on without an end. Where its beginning has passed, the patch is run there
   * anew from t = 0, unheard.
   *
   * @param span seconds after t = 0.
   */
  setLoop(span: readonly [from: number, to: number] | null): void {
    if (!span) {
      this.loop = null;
      if (this.seeking !== 'no') this.arrive();
      return;
    }
    const from = Math.max(0, Math.round(span[0] * this.sampleRate));
    this.loop = { from, to: Math.max(from + this.running.block, Math.round(span[1] * this.sampleRate)), saved: null };
    if (this.running.samples <= from) return;
    this.seeking = 'falls';
    this.listening.dipTo(false);
  }

  /** Makes a voltage heard as the pitch of a soft tone, or none. */
  setTone(socket: string | null): void {
    if (socket !== null) this.toneFrom = socket;
    this.tone.sound(socket !== null);
  }

  /** Ticks that begin at these samples. */
  count(at: readonly number[]): void {
    this.ticks.count(at);
  }

  /** The next samples as they are heard, at most a block of the engine's. */
  next(left: Float32Array, right: Float32Array, count: number): void {
    if (this.seeking === 'unheard') {
      this.seek();
      this.left.fill(0);
      this.right.fill(0);
    } else for (let at = 0; at < count;) at += this.piece(at, count - at);
    this.seams.left.process(this.left, count);
    this.seams.right.process(this.right, count);
    this.listening.process(this.left, this.right, left, right, count);
    if (this.listening.isDipped) this.whileDipped();
  }

  /** The next samples up to where the loop begins or ends; how many. */
  private piece(at: number, most: number): number {
    const { loop, running } = this;
    const begun = running.samples;
    if (loop && begun === loop.from) loop.saved ??= running.save();
    const edge = [loop && !loop.saved ? loop.from : 0, loop?.to ?? 0].find((e) => e > begun) ?? Infinity;
    const count = Math.min(most, edge - begun);
    running.advance(count);
    this.take(this.ears.left, this.left, at, count);
    this.take(this.ears.right, this.right, at, count);
    this.tone.add(this.bufferOf(this.toneFrom), this.left, this.right, at, count);
    this.ticks.add(begun, this.left, this.right, at, count);
    if (loop?.saved && running.samples === loop.to) {
      running.recall(loop.saved);
      this.seams.left.open(at + count);
      this.seams.right.open(at + count);
    }
    return count;
  }

  /** Nothing is heard now: what must not be heard is done. */
  private whileDipped(): void {
    const { other } = this;
    if (other) {
      this.other = null;
      this.goOn(other.patch, other.ears);
      this.listening.guard();
      this.listening.switchMatch(other.matchDb);
    }
    if (this.seeking === 'falls') {
      this.running = this.begin();
      this.seeking = 'unheard';
      this.seek();
    } else if (other) this.listening.dipTo(true);
  }

  /** Some of the way to where the loop begins. */
  private seek(): void {
    const { loop, running } = this;
    for (let i = 0; i < AHEAD && loop && running.samples < loop.from; i++)
      running.advance(Math.min(running.block, loop.from - running.samples));
    if (!loop || running.samples >= loop.from) this.arrive();
  }

  private arrive(): void {
    this.seeking = 'no';
    this.listening.dipTo(true);
  }

  heard(): Heard {
    return this.listening.heard();
  }

  private bufferOf(socket: string | null): Float64Array | null {
    return socket !== null && this.running.has(socket) ? this.running.buffer(socket) : null;
  }

  private take(socket: string, into: Float64Array, at: number, count: number): void {
    const { gain } = this.ears;
    const from = this.bufferOf(socket);
    for (let i = 0; i < count; i++) into[at + i] = from ? (from[i] as number) * gain : 0;
  }
}

/** The least, the greatest and the last of a stretch of samples, volts. */
export class Meter {
  private least = Infinity;
  private greatest = -Infinity;
  private last = 0;

  add(samples: Float64Array, count: number): void {
    for (let i = 0; i < count; i++) {
      const v = samples[i] as number;
      if (v < this.least) this.least = v;
      if (v > this.greatest) this.greatest = v;
    }
    this.last = samples[count - 1] as number;
  }

  /** Writes now, least and greatest, and begins anew. */
  take(into: Float32Array, at: number): void {
    into[at] = this.last;
    into[at + 1] = this.least === Infinity ? this.last : this.least;
    into[at + 2] = this.greatest === -Infinity ? this.last : this.greatest;
    this.least = Infinity;
    this.greatest = -Infinity;
  }
}
