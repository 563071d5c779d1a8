import { pitchedOutputs } from '../findings/pitch-paths';
import { stepperAt } from '../findings/steppers';
import { idOf, socketAt } from '../document/sockets';
import type { Graph, GraphModule } from '../graph/graph';
import type { Observer } from '../simulate/types';

/** A pitch has arrived within 3 cents, volts; any other voltage within a share of its step. */
const PITCH_VOLTS = 3 / 1200;
const SHARE = 0.01;
/** Less than this is no step, volts. */
const STEP_VOLTS = 1e-6;

/** How long steps take to arrive behind a lag. */
export interface TimeToArrive {
  /** Seconds; null where none arrived. */
  readonly median: number | null;
  /** Seconds; null where a step did not arrive before the next one. */
  readonly worst: number | null;
}

/** Follows a lag beside its stepped input: from each step on until it stays near. */
export class ArrivalWatch implements Observer {
  readonly sockets: readonly string[];
  private readonly times: number[] = [];
  private missed = 0;
  private target: number | null = null;
  private near = PITCH_VOLTS;
  private since = 0;
  private arrived: number | null = null;
  private running = false;

  constructor(
    readonly socket: string,
    input: string,
    private readonly pitched: boolean,
  ) {
    this.sockets = [input, socket];
  }

  block([x, y]: readonly Float64Array[], count: number, k0: number): void {
    for (let i = 0; i < count; i++) {
      const [v, out] = [(x as Float64Array)[i] as number, (y as Float64Array)[i] as number];
      if (this.target === null) this.target = v;
      else if (Math.abs(v - this.target) > STEP_VOLTS) {
        this.end();
        this.near = this.pitched ? PITCH_VOLTS : SHARE * Math.abs(v - out);
        this.target = v;
        this.since = k0 + i;
        this.arrived = null;
        this.running = true;
      }
      if (Math.abs(out - v) > this.near) this.arrived = null;
      else this.arrived ??= k0 + i;
    }
  }

  private end(): void {
    if (!this.running) return;
    if (this.arrived === null) this.missed++;
    else this.times.push(this.arrived - this.since);
  }

  /** What the steps that ended within the window took; null without any. */
  told(sampleRate: number): TimeToArrive | null {
    const sorted = this.times.toSorted((a, b) => a - b);
    if (sorted.length + this.missed === 0) return null;
    const at = Math.floor((sorted.length + this.missed - 1) / 2);
    const seconds = (samples: number | undefined): number | null =>
      samples === undefined ? null : samples / sampleRate;
    return { median: seconds(sorted[at]), worst: this.missed > 0 ? null : seconds(sorted.at(-1)) };
  }
}

/** What follows a lag, where stepped voltage comes into it. */
function watchOf(graph: Graph, m: GraphModule | undefined): ArrivalWatch[] {
  const lags = m?.kind.timing?.lags;
  const input = m?.inputs.find((s) => s.spec.name === lags);
  if (!m || !input || input.driver.type !== 'output' || !stepperAt(graph, input)) return [];
  const out = socketAt(m.id, m.outputs[0]?.name ?? '');
  return [new ArrivalWatch(out, input.socket, pitchedOutputs(graph).has(out))];
}

/** What follows every lag that stepped voltage comes into. */
export const arrivalWatchers = (graph: Graph): ArrivalWatch[] => graph.modules.flatMap((m) => watchOf(graph, m));

/** What follows the lag that a socket belongs to or is patched from; null without one that steps come into. */
export function arrivalAt(graph: Graph, socket: string): ArrivalWatch | null {
  const driver = graph.modules.flatMap((m) => m.inputs).find((s) => s.socket === socket)?.driver;
  const from = driver?.type === 'output' ? graph.modules[driver.module] : undefined;
  const own = graph.modules.find((m) => m.id === idOf(socket));
  return watchOf(graph, from)[0] ?? watchOf(graph, own)[0] ?? null;
}
