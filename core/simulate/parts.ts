import type { Graph, GraphInput, GraphModule, GraphOutput } from '../graph/graph';
import type { Kernel } from '../kinds/kind';
import type { ParamValues } from '../kinds/params';
import { GATE_HYSTERESIS } from '../kinds/detect';
import type { Arena } from '../native/native';
import type { Slot, Shared } from './kernels';
import { lawsOf } from './laws';
import { Memory } from './memory';
import { arrivalOf, upstreamAt } from './arrival';
import { Figures } from './figures';
import { tracksOf } from '../graph/tracks';
import { moduleKernel, stepped } from './moving';
import { handedLoads } from './movingLoads';
import { stepAt } from './steps';
import type { Delayed, GateWatch, Part, Seen } from './partTypes';
import { DriveStats, GateStats, Picture, Stats, Tail, settleFrom } from './stats';
import { Tape } from './tape';
import type { SimulateOptions } from './types';

/** Under what a module's memory is handed on. */
export const carriedName = (m: GraphModule): string => `${m.id} ${m.kind.name}`;

/** Lays out what each module of a run reads, computes and writes. */
export class Parts {
  /** By module and output. */
  readonly outputs: readonly (readonly Float64Array[])[];
  /** For a column's least and greatest. */
  private readonly extremes: Float64Array;
  private readonly steady = new Map<number, Float64Array>();
  readonly shared: Shared;
  private readonly looked: ReadonlySet<string>;

  constructor(
    private readonly arena: Arena,
    private readonly size: number,
    private readonly samples: number,
    private readonly graph: Graph,
    private readonly driveOnly: ReadonlySet<number>,
    private readonly options: SimulateOptions,
  ) {
    this.extremes = arena.take(2);
    this.outputs = graph.modules.map((m) => m.outputs.map(() => arena.take(size)));
    this.looked = this.lookedAt();
    this.shared = { arena, size, graph, asset: options.asset ?? (() => null), loads: handedLoads(graph) };
  }

  /** The outputs that something is driven by, or somebody asks for. */
  private lookedAt(): Set<string> {
    const { traces = [], only = [], observers = [] } = this.options;
    const looked = new Set([...traces, ...only, ...observers.flatMap((o) => o.sockets)]);
    for (const m of this.graph.modules) {
      // A stage's first output is what it is for.
      const [first] = m.outputs;
      if (first) looked.add(first.socket);
      for (const { driver } of m.inputs) {
        if (driver.type === 'output')
          looked.add(this.graph.modules[driver.module]?.outputs[driver.output]?.socket ?? '');
      }
    }
    return looked;
  }

  /** A module whose outputs are known from before. */
  played(m: GraphModule, traces: ReadonlyMap<string, Float64Array>): Part {
    const outputs = this.outputs[m.index] as readonly Float64Array[];
    const tracks = m.outputs.flatMap(({ socket }, i) => {
      const trace = traces.get(socket);
      return trace ? [{ trace, out: outputs[i] as Float64Array }] : [];
    });
    const kernel: Kernel = (from, to, k0) => {
      for (const { trace, out } of tracks) out.set(trace.subarray(k0 + from, k0 + to), from);
    };
    const nothing = { inputs: [], seen: [], negated: [], drives: [], limits: [], gates: [], delayed: [] };
    return { module: m, outputs, kernel, runDrives: () => undefined, ...nothing };
  }

  /** A module that runs. */
  part(m: GraphModule): Part {
    const delayed: Delayed[] = [];
    const inputs = m.inputs.map((input) => this.inputBuffer(input, delayed));
    const gates = this.gatesOf(m, inputs);
    if (this.driveOnly.has(m.index)) {
      const none = { outputs: [], kernel: () => undefined, seen: [], negated: [] };
      return { module: m, inputs, delayed, gates, ...none, ...this.drives(m, inputs) };
    }
    const outputs = this.outputs[m.index] as readonly Float64Array[];
    const seen = m.outputs.map((o, i) =>
      this.wanted(o.socket)
        ? {
            ...this.seenOf(outputs[i] as Float64Array, this.settleFrom(m), this.arrivesFrom(m)),
            socket: o.socket,
            factor: o.factor,
            ...this.errorOf(o, outputs[i] as Float64Array),
            inside: this.staysInside(m, o.name),
          }
        : null,
    );
    const negated = Object.entries(m.kind.negated ?? {})
      .map(([name, of]) => [name, of].map((n) => m.outputs.findIndex((o) => o.name === n)))
      .filter(([output = -1]) => seen[output] !== null)
      .map(([output = -1, of = -1]) =>
        this.arena.kernels.scaled(outputs[of] as Float64Array, -1, 0, outputs[output] as Float64Array),
      );
    const detected = m.kind.timing?.detects ? this.arena.take(this.size) : this.steadyBuffer(0);
    const place: Slot = {
      module: m,
      inputs,
      outputs,
      detected,
      nothing: this.steadyBuffer(0),
      wanted: (socket) => this.wanted(socket),
    };
    const memory = this.memory();
    const before = this.options.carried?.memories.get(carriedName(m));
    if (before) memory.copyFrom(before);
    const kernel = moduleKernel(this.shared, place, m.params, memory);
    const own = this.crossings(m, detected);
    return {
      module: m,
      inputs,
      outputs,
      kernel,
      place,
      memory,
      seen,
      negated,
      delayed,
      gates: [...gates, ...own],
      ...this.drives(m, inputs),
    };
  }

  /** Who counts an output. */
  private seenOf(
    x: Float64Array,
    settleFrom: number,
    arrivesFrom: number,
  ): Pick<Seen, 'stats' | 'settled' | 'arrives' | 'picture' | 'clipped' | 'hold'> {
    const clipped = this.arena.take(2);
    const settled = new Tail(this.arena, x, settleFrom);
    return {
      stats: new Stats(this.arena, x),
      settled,
      arrives: arrivesFrom === settleFrom ? settled : new Tail(this.arena, x, arrivesFrom),
      picture: this.picture(x),
      clipped,
      hold: this.arena.kernels.saturate(x, this.graph.patch.settings.railVolts, clipped),
    };
  }

  /** What an output's own gain and offset do to it, before the rails. */
  private errorOf({ gain = 1, offset = 0 }: GraphOutput, x: Float64Array): Pick<Seen, 'err'> {
    return gain === 1 && offset === 0 ? {} : { err: this.arena.kernels.scaled(x, gain, offset, x) };
  }

  private memory(): Memory {
    return new Memory(this.arena, this.size);
  }

  private settleFrom(m: GraphModule | undefined): number {
    const every = (m && this.options.repeats?.get(m.id)?.repeatsEvery) ?? null;
    return settleFrom(every, this.samples, this.graph.sampleRate);
  }

  /** The first sample that counts for what arrives from a module. */
  private arrivesFrom(m: GraphModule): number {
    const known = this.options.repeats?.get(m.id);
    return known ? arrivalOf(known, this.samples, this.graph.sampleRate).from : 0;
  }

  private sourceOf({ driver }: GraphInput): GraphModule | undefined {
    return driver.type === 'output' ? this.graph.modules[driver.module] : undefined;
  }

  private gatesOf(m: GraphModule, inputs: readonly Float64Array[]): GateWatch[] {
    return m.inputs.flatMap((input, i): GateWatch[] => {
      const { threshold } = input.spec;
      if (threshold === undefined || !input.connected) return [];
      const stats = new GateStats(threshold, threshold - GATE_HYSTERESIS, this.settleFrom(this.sourceOf(input)));
      return [{ socket: input.socket, buffer: inputs[i] as Float64Array, stats }];
    });
  }

  /** What a kind's own detector makes of its input. */
  private crossings(m: GraphModule, detected: Float64Array): GateWatch[] {
    const input = m.inputs.find((s) => s.spec.name === m.kind.timing?.detects?.input && s.connected);
    if (!input) return [];
    const stats = new GateStats(0.5, 0.5, this.settleFrom(this.sourceOf(input)));
    return [{ socket: input.socket, buffer: detected, stats }];
  }

  /** Whether an output is read. */
  private wanted(socket: string): boolean {
    return !this.options.sparing || this.looked.has(socket);
  }

  private staysInside(m: GraphModule, output: string): boolean {
    const [lo, hi] = this.options.bounds?.get(m.id)?.unclipped[m.outputs.findIndex((o) => o.name === output)] ?? [
      -Infinity,
      Infinity,
    ];
    const rail = this.graph.patch.settings.railVolts;
    // Strictly: what a hull says was cut at the rails, so at the rail itself nothing is sure.
    return lo > -rail && hi < rail;
  }

  private picture(x: Float64Array): Picture | null {
    const columns = this.options.columns ?? 0;
    if (columns === 0) return null;
    const { window, ...rest } = { window: this.options.window, rate: this.graph.sampleRate };
    const sample = (seconds: number): number => Math.min(this.samples, Math.max(0, Math.round(seconds * rest.rate)));
    const [from, to] = window ? [sample(window[0]), sample(window[1])] : [0, this.samples];
    const span = Math.max(1, to - from);
    return new Picture(this.arena, x, this.extremes, Math.min(columns, span), from, from + span);
  }

  private inputBuffer(input: GraphInput, delayed: Delayed[]): Float64Array {
    const { driver } = input;
    if (driver.type === 'volts') return this.steadyBuffer(driver.volts);
    const source = this.outputs[driver.module]?.[driver.output] as Float64Array;
    if (!driver.delayed) return source;
    const buffer = this.arena.take(this.size);
    const last = this.options.carried?.delayed.get(input.socket) ?? 0;
    delayed.push({ socket: input.socket, source, buffer, stats: new Stats(this.arena, buffer), last });
    return buffer;
  }

  private steadyBuffer(volts: number): Float64Array {
    const known = this.steady.get(volts);
    if (known) return known;
    const buffer = this.arena.take(this.size).fill(volts);
    this.steady.set(volts, buffer);
    return buffer;
  }

  private drives(m: GraphModule, inputs: readonly Float64Array[]): Pick<Part, 'drives' | 'runDrives' | 'limits'> {
    const { store, io } = lawsOf(m);
    const drives = (m.kind.ends ?? []).map((end) => {
      const [low, high] = end.window(m.params) ?? [-Infinity, Infinity];
      const buffer = this.arena.take(this.size);
      const stats = new DriveStats(this.arena, buffer, low, high);
      const { repeats } = this.options;
      const upstream = repeats ? upstreamAt(this.graph, m, end.sockets, repeats) : null;
      const from = upstream ? arrivalOf(upstream, this.samples, this.graph.sampleRate).from : 0;
      const figured = (start: number): Figures | null =>
        m.hands.length > 0 ? new Figures(m, end, this.graph.sampleRate, start) : null;
      const figures = figured(0);
      return {
        buffer,
        stats,
        picture: this.picture(buffer),
        figures,
        arrives: new Tail(this.arena, buffer, from),
        arrivingFigures: from === 0 ? figures : figured(from),
      };
    });
    const limits = (m.kind.stage?.clips?.(store, m.params, io) ?? []).map(({ level }) => {
      const buffer = this.arena.take(this.size);
      return { buffer, stats: new DriveStats(this.arena, buffer, -level, level) };
    });
    const memory = this.memory();
    const at = (params: ParamValues): Kernel => {
      const { store, io } = lawsOf(m);
      const tape = new Tape(this.arena, memory.begin(), this.graph.sampleRate, inputs);
      m.kind.ends?.forEach((end, i) => tape.write(end.drive(store, params, io), drives[i]?.buffer as Float64Array));
      m.kind.stage?.clips?.(store, params, io).forEach(({ value }, i) => {
        const limit = limits[i];
        if (limit) tape.write(value, limit.buffer);
      });
      return (from, to) => tape.run(from, to);
    };
    return { drives, limits, runDrives: this.underHands(m, at) };
  }

  /** What hangs on a module's settings, at each moment at those that its hands have turned them to. */
  private underHands(m: GraphModule, at: (params: ParamValues) => Kernel): Kernel {
    const { sampleRate } = this.graph;
    const tracks = tracksOf(m, sampleRate);
    if (tracks.length === 0) return at(m.params);
    return stepped(stepAt(sampleRate), (middle) =>
      at({ ...m.params, ...Object.fromEntries(tracks.map((t) => [t.param, t.at(middle)])) }),
    );
  }
}
