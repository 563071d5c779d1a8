import type { ModuleBounds } from '../bounds/bounds';
import type { Graph, GraphInput, GraphModule } from '../graph/graph';
import type { Kernel, Wiring } from '../kinds/kind';
import { seedOf } from '../kinds/random';
import { AtomStore } from '../law/builder';
import { constant } from '../law/lin';
import type { Lin } from '../law/lin';
import { DriveStats, GateStats, Picture, Stats } from './stats';
import { Tape } from './tape';
import { upstreamOf, wholeOf } from '../graph/upstream';
import type { Upstream } from '../graph/upstream';

/** Sees every block of the sockets it names. */
export interface Observer {
  readonly sockets: readonly string[];
  block(buffers: readonly Float64Array[], count: number, k0: number): void;
}

export interface SimulateOptions {
  /** Sockets whose whole traces are kept. */
  readonly traces?: readonly string[];
  /** Runs only what these sockets depend on; nothing is said of the rest. */
  readonly only?: readonly string[];
  /** Columns of the pictures of every output; 0 for none. */
  readonly columns?: number;
  readonly observers?: readonly Observer[];
  readonly asset?: Wiring['asset'];
  readonly blockSize?: number;
  /** Guaranteed ranges of this very graph: outputs that stay inside the rails need not be held there. */
  readonly bounds?: ReadonlyMap<string, ModuleBounds>;
  /** Leaves out outputs that nothing is plugged into and nobody asks for. */
  readonly sparing?: boolean;
}

export interface OutputSeen extends Measured {
  /** Share of the samples beyond each rail, 0..1. */
  readonly clippedLow: number;
  readonly clippedHigh: number;
}

export interface Measured {
  readonly min: number;
  readonly max: number;
  readonly mean: number;
  readonly rms: number;
}

export interface GateSeen {
  readonly rises: number;
  /** Share of the time, 0..1. */
  readonly high: number;
  readonly longestHighSeconds: number;
}

export interface EndSeen {
  readonly drive: Measured;
  /** Shares of the samples, 0..1. */
  readonly below: number;
  readonly atOrBelow: number;
  readonly above: number;
}

export interface Simulation {
  readonly sampleRate: number;
  readonly samples: number;
  readonly outputs: ReadonlyMap<string, OutputSeen>;
  readonly inputs: ReadonlyMap<string, Measured>;
  /** By `moduleId`, one for each of the kind's ends. */
  readonly ends: ReadonlyMap<string, readonly EndSeen[]>;
  /** Of every gate input that carries something. */
  readonly gates: ReadonlyMap<string, GateSeen>;
  readonly traces: ReadonlyMap<string, Float64Array>;
  /** By output socket; by input socket what arrives at a destination, all together. */
  readonly pictures: ReadonlyMap<string, Picture>;
}

const BLOCK = 512;

/** The number of samples of a window. */
export const sampleCount = (duration: number, sampleRate: number): number =>
  Math.max(1, Math.round(duration * sampleRate));

/** Runs a patch over its window, block by block; a loop's modules sample by sample. The block's size changes nothing. */
export function simulateGraph(graph: Graph, options: SimulateOptions = {}): Simulation {
  return new Run(options.only ? upstreamOf(graph, options.only) : wholeOf(graph), options).all();
}

interface Part {
  readonly module: GraphModule;
  readonly inputs: readonly Float64Array[];
  readonly outputs: readonly Float64Array[];
  readonly kernel: Kernel;
  readonly seen: readonly (Seen | null)[];
  /** Outputs that are made from another's: index and the other's. */
  readonly negated: readonly { readonly output: number; readonly of: number }[];
  readonly drives: readonly {
    readonly buffer: Float64Array;
    readonly stats: DriveStats;
    readonly picture: Picture | null;
  }[];
  readonly drivesTape: Tape;
  readonly gates: readonly { readonly socket: string; readonly buffer: Float64Array; readonly stats: GateStats }[];
  readonly delayed: readonly Delayed[];
}

interface Seen {
  readonly stats: Stats;
  /** Sure to stay inside the rails. */
  readonly inside: boolean;
  readonly factor: number;
  readonly picture: Picture | null;
  clippedLow: number;
  clippedHigh: number;
}

/** A cable that carries the previous sample. */
interface Delayed {
  readonly socket: string;
  readonly source: Float64Array;
  readonly buffer: Float64Array;
  readonly stats: Stats;
  last: number;
}

class Run {
  private readonly size: number;
  private readonly samples: number;
  private readonly steady = new Map<number, Float64Array>();
  private readonly outputs: readonly (readonly Float64Array[])[];
  private readonly parts: readonly Part[];
  private readonly partAt: ReadonlyMap<number, Part>;
  private readonly traces = new Map<string, Float64Array>();
  private readonly watched: { readonly observer: Observer; readonly buffers: Float64Array[] }[] = [];

  private readonly graph: Graph;
  private readonly driveOnly: ReadonlySet<number>;
  private readonly looked: ReadonlySet<string>;

  constructor(
    { graph, driveOnly }: Upstream,
    private readonly options: SimulateOptions,
  ) {
    this.graph = graph;
    this.driveOnly = driveOnly;
    this.samples = sampleCount(graph.patch.settings.duration, graph.sampleRate);
    this.size = Math.min(options.blockSize ?? BLOCK, this.samples);
    this.outputs = graph.modules.map((m) => m.outputs.map(() => new Float64Array(this.size)));
    const needed = new Set(graph.groups.flatMap((g) => g.modules));
    this.looked = this.lookedAt();
    this.parts = graph.modules.filter((m) => needed.has(m.index) || driveOnly.has(m.index)).map((m) => this.part(m));
    this.partAt = new Map(this.parts.map((p) => [p.module.index, p]));
    for (const socket of options.traces ?? []) this.traces.set(socket, new Float64Array(this.samples));
    for (const observer of options.observers ?? []) {
      this.watched.push({ observer, buffers: observer.sockets.map((s) => this.bufferOf(s)) });
    }
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

  all(): Simulation {
    const traced = [...this.traces].map(([socket, trace]) => ({ trace, buffer: this.bufferOf(socket) }));
    for (let k0 = 0; k0 < this.samples; k0 += this.size) {
      const count = Math.min(this.size, this.samples - k0);
      for (const group of this.graph.groups) {
        if (group.loop) this.loop(group.modules, count, k0);
        else group.modules.forEach((m) => this.step(this.partAt.get(m) as Part, 0, count, k0));
      }
      for (const part of this.parts) this.measure(part, count, k0);
      for (const { trace, buffer } of traced) trace.set(count === this.size ? buffer : buffer.subarray(0, count), k0);
      for (const { observer, buffers } of this.watched) observer.block(buffers, count, k0);
    }
    return this.result();
  }

  private loop(modules: readonly number[], count: number, k0: number): void {
    const parts = modules.map((m) => this.partAt.get(m) as Part);
    const delayed = parts.flatMap((p) => p.delayed);
    for (let i = 0; i < count; i++) {
      for (const d of delayed) d.buffer[i] = i > 0 ? (d.source[i - 1] as number) : d.last;
      for (const part of parts) this.step(part, i, i + 1, k0);
    }
    for (const d of delayed) d.last = d.source[count - 1] as number;
  }

  private step(part: Part, from: number, to: number, k0: number): void {
    part.kernel(from, to, k0);
    for (const { output, of } of part.negated)
      negate(part.outputs[of] as Float64Array, part.outputs[output] as Float64Array, from, to);
    const rail = this.graph.patch.settings.railVolts;
    for (let o = 0; o < part.outputs.length; o++) {
      const seen = part.seen[o];
      if (seen && !(seen.inside && seen.factor === 1)) saturate(part.outputs[o] as Float64Array, from, to, rail, seen);
    }
  }

  private measure(part: Part, count: number, k0: number): void {
    part.seen.forEach((seen, o) => {
      if (!seen) return;
      const out = part.outputs[o] as Float64Array;
      seen.stats.add(out, 0, count);
      seen.picture?.add(out, count, k0);
    });
    for (const d of part.delayed) d.stats.add(d.buffer, 0, count);
    for (const g of part.gates) g.stats.add(g.buffer, 0, count);
    if (part.drives.length === 0) return;
    part.drivesTape.run(0, count);
    for (const { buffer, stats, picture } of part.drives) {
      stats.add(buffer, 0, count);
      picture?.add(buffer, count, k0);
    }
  }

  private part(m: GraphModule): Part {
    const delayed: Delayed[] = [];
    const inputs = m.inputs.map((input) => this.inputBuffer(input, delayed));
    const gates = m.inputs.flatMap(({ socket, spec, connected }, i) =>
      spec.threshold === undefined || !connected
        ? []
        : [{ socket, buffer: inputs[i] as Float64Array, stats: new GateStats(spec.threshold) }],
    );
    if (this.driveOnly.has(m.index)) {
      const none = { outputs: [], kernel: () => undefined, seen: [], negated: [] };
      return { module: m, inputs, delayed, gates, ...none, ...this.drives(m, inputs) };
    }
    const outputs = this.outputs[m.index] as readonly Float64Array[];
    const seen = m.outputs.map((o) =>
      this.wanted(o.socket)
        ? {
            stats: new Stats(),
            picture: this.picture(),
            factor: o.factor,
            inside: this.staysInside(m, o.name),
            clippedLow: 0,
            clippedHigh: 0,
          }
        : null,
    );
    const negated = Object.entries(m.kind.negated ?? {})
      .map(([name, of]) => ({
        output: m.outputs.findIndex((o) => o.name === name),
        of: m.outputs.findIndex((o) => o.name === of),
      }))
      .filter(({ output }) => seen[output] !== null);
    const kernel = m.kind.kernel?.(m.params, this.wiring(m, inputs, outputs)) ?? this.lawKernel(m, inputs, outputs);
    return { module: m, inputs, outputs, kernel, seen, negated, delayed, gates, ...this.drives(m, inputs) };
  }

  /** Whether anybody looks at an output. */
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

  private picture(): Picture | null {
    const columns = this.options.columns ?? 0;
    return columns > 0 ? new Picture(Math.min(columns, this.samples), this.samples) : null;
  }

  private inputBuffer(input: GraphInput, delayed: Delayed[]): Float64Array {
    const { driver } = input;
    if (driver.type === 'volts') return this.steadyBuffer(driver.volts);
    const source = this.outputs[driver.module]?.[driver.output] as Float64Array;
    if (!driver.delayed) return source;
    const buffer = new Float64Array(this.size);
    delayed.push({ socket: input.socket, source, buffer, stats: new Stats(), last: 0 });
    return buffer;
  }

  private steadyBuffer(volts: number): Float64Array {
    const known = this.steady.get(volts);
    if (known) return known;
    const buffer = new Float64Array(this.size).fill(volts);
    this.steady.set(volts, buffer);
    return buffer;
  }

  private wiring(m: GraphModule, inputs: readonly Float64Array[], outputs: readonly Float64Array[]): Wiring {
    const index = (name: string): number => m.inputs.findIndex((s) => s.spec.name === name);
    return {
      sampleRate: this.graph.sampleRate,
      seed: seedOf(this.graph.patch.settings.seed, m.id),
      railVolts: this.graph.patch.settings.railVolts,
      asset: this.options.asset ?? (() => null),
      scratch: () => new Float64Array(this.size),
      wanted: (name) => this.wanted(`${m.id}.${name}`),
      input: (name) => inputs[index(name)] ?? this.steadyBuffer(0),
      output: (name) => outputs[m.outputs.findIndex((o) => o.name === name)] as Float64Array,
      connected: (name) => m.inputs[index(name)]?.connected ?? false,
      steady(name) {
        const driver = m.inputs[index(name)]?.driver;
        return driver?.type === 'volts' ? driver.volts : null;
      },
    };
  }

  /** The law's values, with the inputs as its leaves; steady inputs fold into constants. */
  private laws(m: GraphModule): { store: AtomStore; io: Parameters<GraphModule['kind']['law']>[2] } {
    const store = new AtomStore();
    const leaves = m.inputs.map(({ driver, spec }, slot) =>
      driver.type === 'volts' ? constant(driver.volts) : store.leaf(spec.name, -Infinity, Infinity, slot),
    );
    const index = (name: string): number => m.inputs.findIndex((s) => s.spec.name === name);
    return {
      store,
      io: {
        in: (name) => leaves[index(name)] ?? constant(0),
        connected: (name) => m.inputs[index(name)]?.connected ?? false,
        symbol: (name) => {
          throw new Error(`${m.kind.name}.${name}: a law without a kernel has no symbols of its own`);
        },
        range: (x) => [x.lo, x.hi],
        loading: m.loading,
      },
    };
  }

  private lawKernel(m: GraphModule, inputs: readonly Float64Array[], outputs: readonly Float64Array[]): Kernel {
    const { store, io } = this.laws(m);
    const law = m.kind.law(store, m.params, io);
    const tape = new Tape(this.size, this.graph.sampleRate, inputs);
    m.outputs.forEach((o, i) => {
      if (!m.kind.negated?.[o.name]) tape.write(law[o.name] as Lin, outputs[i] as Float64Array);
    });
    return (from, to) => tape.run(from, to);
  }

  private drives(m: GraphModule, inputs: readonly Float64Array[]): Pick<Part, 'drives' | 'drivesTape'> {
    const tape = new Tape(this.size, this.graph.sampleRate, inputs);
    const { store, io } = this.laws(m);
    const drives = (m.kind.ends ?? []).map((end) => {
      const buffer = new Float64Array(this.size);
      tape.write(end.drive(store, m.params, io), buffer);
      return { buffer, stats: new DriveStats(...end.window(m.params)), picture: this.picture() };
    });
    return { drives, drivesTape: tape };
  }

  private bufferOf(socket: string): Float64Array {
    const [id = '', name = ''] = socket.split('.');
    const part = this.parts.find((p) => p.module.id === id);
    const output = part?.module.outputs.findIndex((o) => o.name === name) ?? -1;
    const input = part?.module.inputs.findIndex((s) => s.spec.name === name) ?? -1;
    const buffer = part?.outputs[output] ?? part?.inputs[input];
    if (!buffer) throw new Error(`there is no socket ${socket}`);
    return buffer;
  }

  private result(): Simulation {
    const outputs = new Map<string, OutputSeen>();
    const inputs = new Map<string, Measured>();
    const ends = new Map<string, readonly EndSeen[]>();
    const pictures = new Map<string, Picture>();
    const gates = new Map<string, GateSeen>();
    for (const part of this.parts) {
      for (const { socket, stats } of part.gates) gates.set(socket, this.gateSeen(stats));
      part.drives.forEach(({ picture }, i) => {
        const end = part.module.kind.ends?.[i];
        if (picture && end) for (const name of end.sockets) pictures.set(`${part.module.id}.${name}`, picture);
      });
      part.seen.forEach((seen, i) => {
        if (!seen) return;
        const o = part.module.outputs[i] as GraphModule['outputs'][number];
        const { stats, picture, clippedLow, clippedHigh } = seen;
        outputs.set(o.socket, {
          ...measured(stats),
          clippedLow: clippedLow / this.samples,
          clippedHigh: clippedHigh / this.samples,
        });
        if (picture) pictures.set(o.socket, picture);
      });
      ends.set(
        part.module.id,
        part.drives.map(({ stats }) => endSeen(stats)),
      );
    }
    for (const part of this.parts) {
      for (const input of part.module.inputs) {
        const seen = this.inputSeen(part, input, outputs);
        if (seen) inputs.set(input.socket, seen);
      }
    }
    return {
      sampleRate: this.graph.sampleRate,
      samples: this.samples,
      outputs,
      inputs,
      ends,
      gates,
      traces: this.traces,
      pictures,
    };
  }

  private gateSeen({ rises, highSamples, longestHigh }: GateStats): GateSeen {
    return { rises, high: highSamples / this.samples, longestHighSeconds: longestHigh / this.graph.sampleRate };
  }

  private inputSeen(
    part: Part,
    { driver, socket }: GraphInput,
    outputs: ReadonlyMap<string, OutputSeen>,
  ): Measured | null {
    if (driver.type === 'volts')
      return { min: driver.volts, max: driver.volts, mean: driver.volts, rms: Math.abs(driver.volts) };
    const delayed = part.delayed.find((d) => d.socket === socket);
    if (delayed) return measured(delayed.stats);
    const source = this.graph.modules[driver.module]?.outputs[driver.output]?.socket ?? '';
    const seen = outputs.get(source);
    return seen ? { min: seen.min, max: seen.max, mean: seen.mean, rms: seen.rms } : null;
  }
}

const measured = ({ min, max, mean, rms }: Stats): Measured => ({ min, max, mean, rms });

function endSeen(stats: DriveStats): EndSeen {
  const share = (count: number): number => (stats.count > 0 ? count / stats.count : 0);
  return {
    drive: measured(stats),
    below: share(stats.below),
    atOrBelow: share(stats.atOrBelow),
    above: share(stats.above),
  };
}

/** An output's rails, then what loading leaves of it. */
function saturate(x: Float64Array, from: number, to: number, rail: number, seen: Seen): void {
  let [low, high] = [0, 0];
  for (let i = from; i < to; i++) {
    const v = x[i] as number;
    if (v > rail) {
      if (v > rail + 1e-9) high++;
      x[i] = rail;
    } else if (v < -rail) {
      if (v < -rail - 1e-9) low++;
      x[i] = -rail;
    }
  }
  const { factor } = seen;
  if (factor !== 1) for (let i = from; i < to; i++) x[i] = (x[i] as number) * factor;
  seen.clippedLow += low;
  seen.clippedHigh += high;
}

function negate(x: Float64Array, out: Float64Array, from: number, to: number): void {
  for (let i = from; i < to; i++) out[i] = -(x[i] as number);
}
