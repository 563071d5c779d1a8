import type { Graph, GraphModule } from '../graph/graph';
import { modulesUpTo } from '../graph/upstream';

/** How long what is heard before an edit crosses over to what is heard after it, seconds. */
const SEAM_SECONDS = 0.01;

/** What cannot move in a line to where it is set. */
const settled = ({ kind, params }: GraphModule): unknown[] =>
  Object.entries(kind.params).flatMap(([name, spec]) =>
    spec.type === 'number' && !spec.whole && typeof params[name] === 'number' ? [] : [params[name]],
  );

/** All that makes the voltage at a socket, knobs aside that are moved in a line. */
function makingOf(graph: Graph, socket: string): string {
  const ids = modulesUpTo(graph, socket);
  const making = graph.modules.flatMap((m) => {
    if (!ids.has(m.id)) return [];
    const drivers = m.inputs.map(({ driver }) =>
      driver.type === 'output' ? graph.modules[driver.module]?.outputs[driver.output]?.socket : driver.volts,
    );
    return [[m.id, m.kind.name, settled(m), drivers]];
  });
  return JSON.stringify(making.toSorted(([a], [b]) => (String(a) < String(b) ? -1 : 1)));
}

/** Whether a socket carries the same in two graphs but for knobs that are moved in a line. */
export const isSeamless = (before: Graph, after: Graph, socket: string): boolean =>
  makingOf(before, socket) === makingOf(after, socket);

/** Takes the step out of what is heard where an edit changed it: from the last sample before, over 10 ms. */
export class Seam {
  private readonly length: number;
  private last = 0;
  private isOpen = false;
  private offset = 0;
  private at: number;

  constructor(sampleRate: number) {
    this.length = Math.max(1, Math.round(SEAM_SECONDS * sampleRate));
    this.at = this.length;
  }

  /** The next sample is of something else. */
  open(): void {
    this.isOpen = true;
  }

  process(samples: Float64Array, count: number): void {
    if (this.isOpen) {
      this.isOpen = false;
      this.offset = this.last - (samples[0] as number);
      this.at = 0;
    }
    for (let i = 0; i < count && this.at < this.length; i++, this.at++)
      samples[i] = (samples[i] as number) + (this.offset * (1 + Math.cos((Math.PI * this.at) / this.length))) / 2;
    this.last = samples[count - 1] ?? this.last;
  }
}
