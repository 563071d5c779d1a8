import { sameHands } from '../graph/alike';
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

/** Whether no hand was put on a knob, taken off or changed, of what a socket hangs on. */
function sameHandsAt(before: Graph, after: Graph, socket: string): boolean {
  const ids = modulesUpTo(after, socket);
  const was = new Map(before.modules.map((m) => [m.id, m.hands]));
  return after.modules.every((m) => !ids.has(m.id) || sameHands(was.get(m.id) ?? [], m.hands));
}

/** Whether a socket carries the same in two graphs but for knobs that are moved in a line. */
export const isSeamless = (before: Graph, after: Graph, socket: string): boolean =>
  makingOf(before, socket) === makingOf(after, socket) && sameHandsAt(before, after, socket);

/** Takes the step out of what is heard where an edit changed it: from the last sample before, over 10 ms. */
export class Seam {
  private readonly length: number;
  private last = 0;
  /** The sample that is of something else; below 0 while none is. */
  private opens = -1;
  private offset = 0;
  private at: number;

  constructor(sampleRate: number) {
    this.length = Math.max(1, Math.round(SEAM_SECONDS * sampleRate));
    this.at = this.length;
  }

  /** A sample is of something else: the next one, or one within what is processed next. */
  open(at = 0): void {
    this.opens = at;
  }

  process(samples: Float64Array, count: number): void {
    for (let i = 0; i < count; i++) {
      const x = samples[i] as number;
      if (i === this.opens) {
        this.opens = -1;
        this.offset = this.last - x;
        this.at = 0;
      }
      if (this.at < this.length)
        samples[i] = x + (this.offset * (1 + Math.cos((Math.PI * this.at++) / this.length))) / 2;
      this.last = samples[i] as number;
    }
    // What changes behind the last sample is heard with the next.
    if (this.opens >= count) this.opens -= count;
  }
}
