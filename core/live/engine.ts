import type { Graph, GraphModule } from '../graph/graph';
import { upstreamOf, wholeOf } from '../graph/upstream';
import type { AssetLookup } from '../kinds/kind';
import type { ParamValues } from '../kinds/params';
import { Arena } from '../native/native';
import { isLoaded, isPot } from '../graph/loading';
import { tracksOf } from '../graph/tracks';
import type { Track } from '../graph/tracks';
import type { Saved } from '../simulate/memory';
import { moduleKernel, movingKernel } from '../simulate/moving';
import { handedLoads, MovingLoads } from '../simulate/movingLoads';
import { carriedName } from '../simulate/parts';
import type { Part } from '../simulate/partTypes';
import { Run } from '../simulate/run';
import { Ramps } from './ramps';
import { sameLoads, sameWiring } from './sameWiring';

/** Samples that are worked out together, as sound devices ask for them. */
export const LIVE_BLOCK = 128;

/** Samples between two looks at what moving pots load. */
const LOAD_GRID = 16;

/** More than any module takes for itself, buffers. */
const BUFFERS = 96;

export interface LiveOptions {
  readonly asset?: AssetLookup;
  /** Samples a block; left out: as sound devices ask for them. */
  readonly block?: number;
  /** Works out what these sockets hang on, and nothing else; left out: all. */
  readonly only?: readonly string[];
}

/** What a run remembers after some samples. */
export interface SavedRun {
  readonly samples: number;
  readonly memories: ReadonlyMap<string, Saved>;
  readonly delayed: ReadonlyMap<string, number>;
}

/**
 * Runs a patch without an end, block by block, with the kernels of a simulation, and goes on through edits: a knob
 * moves there in a straight line, sample by sample; a cable, a stage or a kind that changes leaves what all others
 * remember. Without edits its samples are those of `simulateGraph`.
 */
export class LiveEngine {
  readonly block: number;
  private readonly asset: AssetLookup;
  private readonly only: readonly string[] | undefined;
  private arenas: [Arena | null, Arena | null] = [null, null];
  private room = 0;
  private run: Run;
  /** Of this layout, those that were asked for: looked for once, not at every block. */
  private readonly buffers = new Map<string, Float64Array>();
  private graph: Graph;
  /** Samples that have been worked out. */
  private done = 0;
  private readonly ramps = new Ramps();
  /** Outputs whose loads are on their way with a passive pot; null while none is. */
  private loadsMove: Set<string> | null = null;

  constructor(graph: Graph, options: LiveOptions = {}) {
    this.block = options.block ?? LIVE_BLOCK;
    this.asset = options.asset ?? (() => null);
    this.only = options.only;
    this.graph = graph;
    this.run = this.lay(graph, null);
  }

  /** Samples since its start. */
  get samples(): number {
    return this.done;
  }

  get sampleRate(): number {
    return this.graph.sampleRate;
  }

  /** Where a socket's samples of the block that was worked out last are. */
  buffer(socket: string): Float64Array {
    const known = this.buffers.get(socket);
    if (known) return known;
    const found = this.run.bufferOf(socket);
    this.buffers.set(socket, found);
    return found;
  }

  has(socket: string): boolean {
    if (this.buffers.has(socket)) return true;
    return this.graph.modules.some(
      (m) => m.outputs.some((o) => o.socket === socket) || m.inputs.some((s) => s.socket === socket),
    );
  }

  /** Works out the next samples, at most a block. */
  advance(count: number = this.block): void {
    this.run.advance(count, this.done);
    this.done += count;
    if (!this.ramps.any) return;
    const arrived = new Set(this.ramps.arrived(this.done));
    const loadsRest = !this.ramps.any && this.loadsMove;
    if (loadsRest) this.restLoads();
    for (const part of this.run.parts) {
      const m = this.graph.modules[part.module.index];
      if (m && (arrived.has(m.id) || (loadsRest && isLoaded(m)))) this.rest(part, m.params);
    }
  }

  /** Goes on as another patch; what moves, moves from the next sample on. */
  edit(graph: Graph): void {
    const before = this.graph;
    this.graph = graph;
    this.ramps.aim(before, graph, this.done);
    const rewired = !sameWiring(before, graph);
    if (rewired) {
      this.run = this.lay(graph, this.run);
      this.buffers.clear();
      this.loadsMove = null;
    } else this.moveLoads(before, graph);
    for (const part of this.run.parts) {
      const now = graph.modules[part.module.index];
      const was = before.modules[part.module.index];
      if (!now || !part.place) continue;
      // A passive part that is turned loads what drives it otherwise, and what it drives.
      const changed = rewired
        ? this.ramps.of(now.id).length > 0
        : now.params !== was?.params || (was && !sameLoads(now, was));
      if (changed) this.turn(part, now);
    }
  }

  /** All that it remembers now. */
  save(): SavedRun {
    const { parts } = this.run;
    return {
      samples: this.done,
      memories: new Map(parts.flatMap((p) => (p.memory ? [[carriedName(p.module), p.memory.save()] as const] : []))),
      delayed: new Map(parts.flatMap((p) => p.delayed.map((d) => [d.socket, d.last] as const))),
    };
  }

  /** Goes on from where it was saved, with the knobs and cables of now. */
  recall({ samples, memories, delayed }: SavedRun): void {
    this.done = samples;
    this.ramps.forget();
    this.restLoads();
    for (const part of this.run.parts) {
      const saved = memories.get(carriedName(part.module));
      if (saved) part.memory?.recall(saved);
      for (const d of part.delayed) d.last = delayed.get(d.socket) ?? d.last;
      const m = this.graph.modules[part.module.index];
      if (m) this.rest(part, m.params);
    }
  }

  /** Loads move with the passive pots that are on their way. */
  private moveLoads(before: Graph, now: Graph): void {
    const changed = now.modules.flatMap((m, i) => {
      const was = before.modules[i];
      return was && !sameLoads(m, was) ? [{ m, was }] : [];
    });
    if (changed.length === 0 && !this.loadsMove) return;
    const affected = changed.flatMap(({ m, was }) =>
      m.outputs.filter((o, i) => o.factors || o.factor !== was.outputs[i]?.factor).map((o) => o.socket),
    );
    this.loadsMove ??= new Set();
    for (const socket of affected) this.loadsMove.add(socket);
    const tracks = now.modules.filter(isPot).map((m) => [m.id, this.tracksOf(m)] as const);
    this.run.shared.loads = new MovingLoads(now, new Map(tracks), this.loadsMove, LOAD_GRID, 1);
    for (const part of this.run.parts) {
      const m = now.modules[part.module.index];
      if (m && isLoaded(m)) this.turn(part, m);
    }
  }

  private restLoads(): void {
    this.loadsMove = null;
    this.run.shared.loads = handedLoads(this.graph);
  }

  /** How a module's knobs move: on their way to where they were set, and by hands. */
  private tracksOf(m: GraphModule): Track[] {
    const handed = tracksOf(m, this.graph.sampleRate);
    return [...this.ramps.of(m.id).filter((t) => !handed.some((h) => h.param === t.param)), ...handed];
  }

  private turn(part: Part, now: GraphModule): void {
    const { place, memory } = part;
    if (!place || !memory) return;
    part.place = { ...place, module: now };
    now.outputs.forEach((o, i) => {
      const seen = part.seen[i];
      if (seen) seen.factor = o.factor;
    });
    const tracks = this.tracksOf(now);
    if (tracks.length === now.hands.length) this.rest(part, now.params);
    else part.kernel = movingKernel(this.run.shared, part.place, now.params, tracks, memory, 1);
  }

  /** A module whose knobs stand still. */
  private rest(part: Part, params: ParamValues): void {
    const { place, memory } = part;
    if (place && memory) part.kernel = moduleKernel(this.run.shared, place, params, memory);
  }

  private lay(graph: Graph, before: Run | null): Run {
    const needed = (graph.modules.length + 4) * BUFFERS * (this.block + 2);
    const fits = needed <= this.room;
    this.room = Math.max(this.room, needed);
    const [now, other] = this.arenas;
    const arena = fits && other ? other.restart() : Arena.owned(this.room);
    this.arenas = [arena, fits ? now : null];
    const parts = before?.parts ?? [];
    const memories = new Map(parts.flatMap((p) => (p.memory ? [[carriedName(p.module), p.memory] as const] : [])));
    const delayed = new Map(parts.flatMap((p) => p.delayed.map((d) => [d.socket, d.last] as const)));
    const options = { asset: this.asset, carried: { memories, delayed } };
    if (!this.only) return new Run(arena, this.block, wholeOf(graph), options);
    return new Run(arena, this.block, upstreamOf(graph, this.only), { ...options, only: this.only, sparing: true });
  }
}
