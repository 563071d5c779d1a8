import { inputsNamed, gainThrough, sourceOf } from '../findings/paths';
import { restVolts } from '../findings/rest';
import type { Graph, GraphInput, GraphModule } from '../graph/graph';
import type { GainSpec, Kind } from '../kinds/kind';
import type { ParamValues } from '../kinds/params';
import type { Observer, Simulation } from '../simulate/types';
import { socketAt } from '../document/sockets';

/** What an output adds by itself where neither its module nor its kind says, microvolts RMS. */
const USUAL_MICROVOLTS = 30;

/** Noise at a line output, dBu; silence is null. */
export interface Noise {
  /** While every envelope rests. */
  readonly restDbu: number | null;
  /** As it plays. */
  readonly playingDbu: number | null;
  /** The signal's RMS over the noise as it plays, dB; null without a signal. */
  readonly signalToNoiseDb: number | null;
}

/** The root mean square of a gain over the window. */
export class GainRms implements Observer {
  readonly sockets: readonly string[];
  private squares = 0;
  private count = 0;
  private readonly gain: (controls: readonly number[]) => number;
  private readonly volts: number[];

  constructor(
    readonly m: GraphModule,
    readonly spec: GainSpec<ParamValues>,
    sampleRate: number,
  ) {
    this.sockets = spec.controls.map((name) => socketAt(m.id, name));
    this.gain = spec.gain(m.params, sampleRate);
    this.volts = spec.controls.map(() => 0);
  }

  block(buffers: readonly Float64Array[], count: number): void {
    const { volts } = this;
    for (let i = 0; i < count; i++) {
      for (let j = 0; j < volts.length; j++) volts[j] = (buffers[j] as Float64Array)[i] as number;
      const g = this.gain(volts);
      this.squares += g * g;
    }
    this.count += count;
  }

  get rms(): number {
    return this.count > 0 ? Math.sqrt(this.squares / this.count) : 0;
  }
}

/** What follows the gain of every stage that something opens and closes, where the patch leads to a line output. */
export function noiseWatchers(graph: Graph): GainRms[] {
  if (!graph.modules.some((m) => m.kind.sound?.outlet)) return [];
  return graph.modules.flatMap((m) =>
    (m.kind.stage?.gains ?? [])
      .filter((spec) => inputsNamed(m, spec.controls).some((s) => s.driver.type === 'output'))
      .map((spec) => new GainRms(m, spec, graph.sampleRate)),
  );
}

/** What each output of a kind adds where its module does not say, microvolts RMS. */
export const usualNoise = (kind: Kind): number => kind.sound?.noiseMicrovolts ?? USUAL_MICROVOLTS;

/** What each output of a module adds by itself, volts RMS: none of passive parts, and none where all is ideal. */
export function ownNoise(graph: Graph, m: GraphModule): number {
  if (graph.patch.settings.loading === 'ideal' || m.kind.electrical?.joins) return 0;
  if (m.kind.electrical?.passive?.(m.params)) return 0;
  const told = graph.patch.modules.find((doc) => doc.id === m.id)?.noiseMicrovolts;
  return (told ?? usualNoise(m.kind)) * 1e-6;
}

/** What a stage makes of a small signal from an input to an output, as a root mean square. */
type GainAt = (m: GraphModule, input: GraphInput, output: string) => number;

/**
 * The noise at an input, volts RMS: the squares of all that is added on the ways to it, each weighed by what follows.
 * From the input backwards, each module once; what a loop brings back is left out.
 */
function noiseAt(graph: Graph, input: GraphInput, gainAt: GainAt): number {
  const weights = new Map<string, number>();
  const add = (s: GraphInput, weight: number): void => {
    const socket = s.driver.type === 'output' && !s.driver.delayed ? sourceOf(graph, s)?.socket : undefined;
    if (socket !== undefined && weight > 0) weights.set(socket, (weights.get(socket) ?? 0) + weight);
  };
  add(input, 1);
  let sum = 0;
  for (const index of graph.groups.flatMap((g) => g.modules).toReversed()) {
    const m = graph.modules[index] as GraphModule;
    for (const { name, socket, factor } of m.outputs) {
      const weight = (weights.get(socket) ?? 0) * factor ** 2;
      if (weight === 0) continue;
      sum += weight * ownNoise(graph, m) ** 2;
      for (const s of m.inputs) if (s.spec.role === 'signal') add(s, weight * gainAt(m, s, name) ** 2);
    }
  }
  return Math.sqrt(sum);
}

const specOf = (m: GraphModule, input: GraphInput): GainSpec<ParamValues> | undefined =>
  m.kind.stage?.gains?.find((g) => g.signals.includes(input.spec.name));

/** The gain at rest: with the controls where they rest, or as it plays where they never do. */
function restGain(graph: Graph, m: GraphModule, spec: GainSpec<ParamValues>): number | null {
  const controls = spec.controls.map((name) => inputsNamed(m, [name])[0]);
  const volts = controls.map((s) => (s ? restVolts(graph, s) : 0));
  return volts.some((v) => v === null) ? null : Math.abs(spec.gain(m.params, 1e-9)(volts as number[]));
}

/**
 * The noise of a patch at the inputs of its line outputs, from what each output on the way adds by itself.
 *
 * @param watched what `noiseWatchers` followed over the run. @returns by input socket.
 */
export function noiseOf(graph: Graph, simulation: Simulation, watched: readonly GainRms[]): Record<string, Noise> {
  const mean = (s: GraphInput): number => simulation.inputs.get(s.socket)?.mean ?? 0;
  const playing: GainAt = (m, input, output) => {
    const spec = specOf(m, input);
    const seen = watched.find((w) => w.m === m && w.spec === spec);
    if (seen) return seen.rms;
    return Math.abs(m.kind.sound?.audioRate && m.kind.stage === undefined ? 1 : gainThrough(m, input, output, mean));
  };
  const resting: GainAt = (m, input, output) => {
    const spec = specOf(m, input);
    return (spec && restGain(graph, m, spec)) ?? playing(m, input, output);
  };
  const outs = graph.modules.filter((m) => m.kind.sound?.outlet);
  return Object.fromEntries(
    outs.flatMap((m) =>
      m.inputs.flatMap((s, i) => {
        const end = m.kind.ends?.find((e) => e.socket === s.spec.name);
        if (s.driver.type !== 'output' || !end) return [];
        const pad = 10 ** (-Number(m.params.padDb) / 20);
        const dbu = (volts: number): number | null => end.value(m.params, volts * pad);
        const signal = dbu(simulation.ends.get(m.id)?.[i] ? (simulation.ends.get(m.id)?.[i]?.drive.rms ?? 0) / pad : 0);
        const [restDbu, playingDbu] = [dbu(noiseAt(graph, s, resting)), dbu(noiseAt(graph, s, playing))];
        const signalToNoiseDb = signal === null || playingDbu === null ? null : signal - playingDbu;
        return [[s.socket, { restDbu, playingDbu, signalToNoiseDb }] as const];
      }),
    ),
  );
}

/** The noise at an input of a patch that was not run, volts RMS, with every gain in the middle of what it gets. */
export function noiseVolts(graph: Graph, socket: string, middle: (input: GraphInput) => number): number {
  const input = graph.modules.flatMap((m) => m.inputs).find((s) => s.socket === socket);
  const gainAt: GainAt = (m, s, output) => {
    const spec = specOf(m, s);
    if (!spec) return Math.abs(gainThrough(m, s, output, middle));
    const controls = spec.controls.map((name) => inputsNamed(m, [name])[0]);
    return Math.abs(spec.gain(m.params, 1e-9)(controls.map((c) => (c ? middle(c) : 0))));
  };
  return input ? noiseAt(graph, input, gainAt) : 0;
}
