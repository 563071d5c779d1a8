import type { Graph } from '../graph/graph';
import { isPot, loadingOf } from '../graph/loading';
import type { Loads, SettingsAt } from '../graph/loading';
import { tracksOf } from '../graph/tracks';
import type { Track } from '../graph/tracks';
import type { Loading } from '../kinds/kind';
import { stepAt } from './steps';

/** An output that is held at the rails, and of which its loads leave a share. */
interface Held {
  readonly socket: string;
  readonly hold: (from: number, to: number, factor: number) => void;
}

const mixed = (a: number, b: number, share: number): number => (a === b ? a : a + (b - a) * share);

/** What is left of an output while passive pots are turned: worked out at a grid of samples, straight in between. */
export class MovingLoads {
  /** The two ends of the stretch that was looked at last. */
  private known: readonly [n: number, a: Loads, b: Loads] | null = null;

  /**
   * @param tracks of passive pots, by module: how their knobs move. @param affected the outputs that bear more and less
   * of a load meanwhile. @param grid samples between two looks. @param piece samples for which all stands still.
   */
  constructor(
    private readonly graph: Graph,
    private readonly tracks: ReadonlyMap<string, readonly Track[]>,
    private readonly affected: ReadonlySet<string>,
    private readonly grid: number,
    readonly piece: number,
  ) {}

  private loadsAt(k: number): Loads {
    const at: SettingsAt = new Map(
      [...this.tracks].map(([id, tracks]) => [
        id,
        {
          ...this.graph.modules.find((m) => m.id === id)?.params,
          ...Object.fromEntries(tracks.map((t) => [t.param, t.at(k)])),
        },
      ]),
    );
    return loadingOf(this.graph.patch, this.graph.wiring, at);
  }

  private around(k: number): { readonly a: Loads; readonly b: Loads; readonly share: number } {
    const n = Math.floor(k / this.grid);
    if (this.known?.[0] !== n) {
      const a = this.known && this.known[0] === n - 1 ? this.known[2] : this.loadsAt(n * this.grid);
      this.known = [n, a, this.loadsAt((n + 1) * this.grid)];
    }
    const [, a, b] = this.known;
    return { a, b, share: k / this.grid - n };
  }

  /** Whether what is left of an output moves. */
  moves(output: string): boolean {
    return this.affected.has(output);
  }

  /** Of a passive module. */
  of(id: string, k: number): Loading {
    const { a, b, share } = this.around(k);
    const [from, to] = [a.of(id), b.of(id)];
    const [p, q] = [from.potLoad, to.potLoad];
    return {
      potLoad: p === null || q === null || p === Infinity || q === Infinity ? p : mixed(p, q, share),
      weights: from.weights.map((w, i) => mixed(w, to.weights[i] ?? w, share)),
    };
  }

  /** Holds an output at the rails, and leaves of it what its loads do meanwhile. */
  hold({ socket, hold }: Held, from: number, to: number, k0: number): void {
    for (let i = from; i < to;) {
      const n = Math.floor((k0 + i) / this.piece);
      const end = Math.min(to, (n + 1) * this.piece - k0);
      const { a, b, share } = this.around(n * this.piece + (this.piece - 1) / 2);
      hold(i, end, mixed(a.factor(socket), b.factor(socket), share));
      i = end;
    }
  }
}

/** What hands on passive pots do to loads through a run; null where there are none. */
export function handedLoads(graph: Graph): MovingLoads | null {
  const pots = graph.modules.filter((m) => m.hands.length > 0 && isPot(m));
  if (pots.length === 0) return null;
  const step = stepAt(graph.sampleRate);
  const tracks = new Map(pots.map((m) => [m.id, tracksOf(m, graph.sampleRate)]));
  const moving = graph.modules.flatMap((m) => m.outputs.filter((o) => o.factors).map((o) => o.socket));
  return new MovingLoads(graph, tracks, new Set(moving), step, step);
}
