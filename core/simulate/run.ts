import { partsOf, socketAt } from '../document/sockets';
import type { Graph } from '../graph/graph';
import type { Upstream } from '../graph/upstream';
import type { Arena } from '../native/native';
import { Parts } from './parts';
import type { Shared } from './kernels';
import type { Part } from './partTypes';
import type { Observer, SimulateOptions } from './types';

/** The number of samples of a window. */
export const sampleCount = (duration: number, sampleRate: number): number =>
  Math.max(1, Math.round(duration * sampleRate));

/** A window's worth of samples, block by block; a loop's modules sample by sample. */
export class Run {
  readonly samples: number;
  readonly parts: readonly Part[];
  readonly traces = new Map<string, Float64Array>();
  readonly drives = new Map<string, Float64Array>();
  readonly graph: Graph;
  readonly shared: Shared;
  readonly repeats: SimulateOptions['repeats'];
  private readonly progress: SimulateOptions['progress'];
  private readonly fresh: ReadonlySet<number> | null;
  private readonly partAt: ReadonlyMap<number, Part>;
  private readonly watched: { readonly observer: Observer; readonly buffers: Float64Array[] }[] = [];

  constructor(
    arena: Arena,
    private readonly size: number,
    { graph, driveOnly }: Upstream,
    options: SimulateOptions,
  ) {
    this.graph = graph;
    this.repeats = options.repeats;
    this.progress = options.progress;
    this.samples = sampleCount(graph.patch.settings.duration, graph.sampleRate);
    const needed = new Set(graph.groups.flatMap((g) => g.modules));
    const parts = new Parts(arena, size, this.samples, graph, driveOnly, options);
    this.shared = parts.shared;
    const wanted = graph.modules.filter((m) => needed.has(m.index) || driveOnly.has(m.index));
    const { given } = options;
    this.fresh = given?.fresh ?? null;
    this.parts = wanted.filter((m) => this.runs(m.index)).map((m) => parts.part(m));
    const played = given ? wanted.filter((m) => !this.runs(m.index)).map((m) => parts.played(m, given.traces)) : [];
    this.partAt = new Map([...this.parts, ...played].map((p) => [p.module.index, p]));
    for (const socket of options.traces ?? []) this.traces.set(socket, new Float64Array(this.samples));
    for (const socket of options.drives ?? []) this.drives.set(socket, new Float64Array(this.samples));
    for (const observer of options.observers ?? []) {
      this.watched.push({ observer, buffers: observer.sockets.map((s) => this.bufferOf(s)) });
    }
  }

  all(): this {
    const traced = [
      ...[...this.traces].map(([socket, trace]) => ({ trace, buffer: this.bufferOf(socket) })),
      ...[...this.drives].map(([socket, trace]) => ({ trace, buffer: this.driveOf(socket) })),
    ];
    for (let k0 = 0; k0 < this.samples; k0 += this.size) {
      this.progress?.(k0 / this.samples);
      const count = Math.min(this.size, this.samples - k0);
      this.advance(count, k0);
      for (const part of this.parts) this.measure(part, count, k0);
      for (const { trace, buffer } of traced) trace.set(count === this.size ? buffer : buffer.subarray(0, count), k0);
      for (const { observer, buffers } of this.watched) observer.block(buffers, count, k0);
    }
    return this;
  }

  /** Works out the next samples of every module, without counting. */
  advance(count: number, k0: number): void {
    for (const group of this.graph.groups) {
      if (group.loop && group.modules.some((m) => this.runs(m))) this.loop(group.modules, count, k0);
      else for (const m of group.modules) this.whole(m, count, k0);
    }
  }

  private runs(index: number): boolean {
    return this.fresh === null || this.fresh.has(index);
  }

  /** A module that is not needed, or whose answer is known, has no part. */
  private whole(index: number, count: number, k0: number): void {
    const part = this.partAt.get(index);
    if (part) this.step(part, 0, count, k0);
  }

  private loop(modules: readonly number[], count: number, k0: number): void {
    const parts = modules.flatMap((m) => this.partAt.get(m) ?? []);
    const delayed = parts.flatMap((p) => p.delayed);
    for (let i = 0; i < count; i++) {
      for (const d of delayed) d.buffer[i] = i > 0 ? (d.source[i - 1] as number) : d.last;
      for (const part of parts) this.step(part, i, i + 1, k0);
    }
    for (const d of delayed) d.last = d.source[count - 1] as number;
  }

  private step(part: Part, from: number, to: number, k0: number): void {
    part.kernel(from, to, k0);
    for (const negate of part.negated) negate(from, to);
    for (const seen of part.seen) {
      if (!seen) continue;
      seen.err?.(from, to);
      if (this.shared.loads?.moves(seen.socket)) this.shared.loads.hold(seen, from, to, k0);
      else if (!(seen.inside && seen.factor === 1)) seen.hold(from, to, seen.factor);
    }
  }

  private measure(part: Part, count: number, k0: number): void {
    for (const seen of part.seen) {
      seen?.stats.add(count);
      seen?.settled.add(count, k0);
      if (seen && seen.arrives !== seen.settled) seen.arrives.add(count, k0);
      seen?.picture?.add(count, k0);
    }
    for (const d of part.delayed) d.stats.add(count);
    for (const g of part.gates) g.stats.add(g.buffer, count, k0);
    if (part.drives.length + part.limits.length === 0) return;
    part.runDrives(0, count, k0);
    for (const { stats } of part.limits) stats.add(count);
    for (const { buffer, stats, picture, figures, arrives, arrivingFigures } of part.drives) {
      stats.add(count);
      arrives.add(count, k0);
      figures?.add(buffer, count, k0);
      if (arrivingFigures !== figures) arrivingFigures?.add(buffer, count, k0);
      picture?.add(count, k0);
    }
  }

  /** Where a destination's drive is worked out, block by block. */
  private driveOf(socket: string): Float64Array {
    for (const { module, drives } of this.partAt.values()) {
      const at = module.kind.ends?.findIndex((end) => socketAt(module.id, end.socket) === socket) ?? -1;
      if (drives[at]) return drives[at].buffer;
    }
    throw new Error(`there is no destination ${socket}`);
  }

  /** Where a socket's present samples are. */
  bufferOf(socket: string): Float64Array {
    const { id, name } = partsOf(socket);
    const part = [...this.partAt.values()].find((p) => p.module.id === id);
    const output = part?.module.outputs.findIndex((o) => o.name === name) ?? -1;
    const input = part?.module.inputs.findIndex((s) => s.spec.name === name) ?? -1;
    const buffer = part?.outputs[output] ?? part?.inputs[input];
    if (!buffer) throw new Error(`there is no socket ${socket}`);
    return buffer;
  }
}
