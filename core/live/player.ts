import type { Patch } from '../document/types';
import type { AssetLookup } from '../kinds/kind';
import { buildGraph } from '../graph/graph';
import type { Graph } from '../graph/graph';
import { LiveEngine } from './engine';
import type { Ears } from './ears';
import { Listening } from './listening';
import { isSeamless, Seam } from './seam';
import type { Heard } from './listening';

type Listened = Pick<Ears, 'left' | 'right' | 'gain'>;

/** The same patch at the device's own rate. */
export function graphAt(patch: Patch, sampleRate: number): Graph {
  return { ...buildGraph(patch), sampleRate };
}

/** A patch that is played without an end, as it is heard by two ears. */
export class Player {
  readonly engine: LiveEngine;
  readonly listening: Listening;
  private readonly left: Float64Array;
  private readonly right: Float64Array;
  private readonly silence: Float64Array;
  private readonly seams: { readonly left: Seam; readonly right: Seam };
  private graph: Graph;
  /** The side that is gone over to. */
  private other: { readonly patch: Patch; readonly ears: Listened; readonly matchDb: number } | null = null;

  constructor(
    patch: Patch,
    readonly sampleRate: number,
    private ears: Listened,
    asset?: AssetLookup,
  ) {
    this.graph = graphAt(patch, sampleRate);
    this.engine = new LiveEngine(this.graph, asset ? { asset } : {});
    this.seams = { left: new Seam(sampleRate), right: new Seam(sampleRate) };
    this.listening = new Listening(sampleRate);
    const { block } = this.engine;
    this.left = new Float64Array(block);
    this.right = new Float64Array(block);
    this.silence = new Float64Array(block);
  }

  /** Goes over to the other side of a comparison: down, across with both gains in place, and up, in 20 ms. */
  switchTo(patch: Patch, ears: Listened, matchDb: number): void {
    this.other = { patch, ears, matchDb };
    this.listening.dipTo(false);
  }

  edit(patch: Patch, ears: Listened): void {
    if (this.other) {
      this.other = { ...this.other, patch, ears };
      return;
    }
    const before = { graph: this.graph, ears: this.ears };
    this.goOn(patch, ears);
    for (const side of ['left', 'right'] as const) {
      const same = before.ears[side] === ears[side] && before.ears.gain === ears.gain;
      if (!same || !isSeamless(before.graph, this.graph, ears[side])) this.seams[side].open();
    }
  }

  private goOn(patch: Patch, ears: Listened): void {
    this.graph = graphAt(patch, this.sampleRate);
    this.engine.edit(this.graph);
    this.ears = ears;
    this.listening.guard();
  }

  /** The next samples as they are heard, at most a block of the engine's. */
  next(left: Float32Array, right: Float32Array, count: number): void {
    this.engine.advance(count);
    this.take(this.ears.left, this.left, count);
    this.take(this.ears.right, this.right, count);
    this.seams.left.process(this.left, count);
    this.seams.right.process(this.right, count);
    this.listening.process(this.left, this.right, left, right, count);
    const { other } = this;
    if (!other || !this.listening.isDipped) return;
    this.other = null;
    this.goOn(other.patch, other.ears);
    this.listening.switchMatch(other.matchDb);
    this.listening.dipTo(true);
  }

  heard(): Heard {
    return this.listening.heard();
  }

  private take(socket: string, into: Float64Array, count: number): void {
    const { gain } = this.ears;
    const from = this.engine.has(socket) ? this.engine.buffer(socket) : this.silence;
    for (let i = 0; i < count; i++) into[i] = (from[i] as number) * gain;
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
