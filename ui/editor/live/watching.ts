import { BoundsEngine, buildGraph } from '@/core';
import type { Patch } from '@/core';
import { Ranged } from '@/core/live/ranged';
import { meters } from '@/ui/session/meters';
import type { LiveReport } from '@/wire/live';
import type { Sound } from './sound';

/** The tolerance for leaving the bound, volts: samples come in single precision. */
const SLACK = 1e-4;
/** How long edits rest before it is worked out how far voltages go by now, milliseconds. */
const REST = 150;

/** What is looked at while a patch plays: every output's range, and the traces of what is pinned. */
export class Watching {
  private sockets: readonly string[] = [];
  private pins: readonly string[] = [];
  private told = '';
  private ranged: Ranged | null = null;
  private readonly engine = new BoundsEngine();
  /** How far each output can have gone by now; null while that is worked out. */
  private bounds: ReadonlyMap<string, readonly [number, number]> | null = null;
  private due: ReturnType<typeof setTimeout> | undefined;
  /** The edit that must be heard before anything is judged, and whether it was. */
  private edit = 0;
  private heard = true;

  /** What is pinned. */
  look(pins: readonly string[]): void {
    this.pins = pins;
  }

  /** Watches what there is; nothing changes where it is watched already by this very sound. */
  begin(patch: Patch, sound: Sound): void {
    const sockets = buildGraph(patch).modules.flatMap((m) => m.outputs.map((o) => o.socket));
    const told = `${sound.number} ${sockets.join()} ${this.pins.join()}`;
    if (told === this.told) return;
    this.told = told;
    this.sockets = sockets;
    meters.watch(sockets, this.pins);
    sound.watch(sockets, this.pins);
  }

  /** A patch begins to play. */
  start(patch: Patch): void {
    this.ranged = new Ranged(patch);
    this.edit = 0;
    this.workOut();
  }

  /** It goes on as another one from an edit on. */
  follow(patch: Patch, edit: number): void {
    this.ranged?.edit(patch);
    this.edit = edit;
    this.heard = false;
    this.bounds = null;
    clearTimeout(this.due);
    this.due = setTimeout(() => this.workOut(), REST);
  }

  stop(): void {
    clearTimeout(this.due);
    this.ranged = null;
    this.bounds = null;
  }

  private workOut(): void {
    const { ranged } = this;
    if (!ranged) return;
    const graph = buildGraph(ranged.patch);
    const found = this.engine.run(graph);
    const { unknown } = ranged;
    this.bounds = new Map(
      graph.modules
        .filter((m) => !unknown.has(m.id))
        .flatMap((m) =>
          m.outputs.flatMap((o, i) => {
            const range = found.get(m.id)?.outputs[i];
            return range ? [[o.socket, range] as const] : [];
          }),
        ),
    );
  }

  /** Sockets that were seen beyond where they can have gone: a fault of the prediction. */
  beyond({ watched, number }: LiveReport, known: readonly string[]): string[] {
    if (watched.length !== 3 * this.sockets.length || number < this.edit) return [];
    // The first report with an edit tells of what came before it, too.
    const wasHeard = this.heard;
    this.heard = true;
    const { bounds } = this;
    if (!wasHeard || !bounds) return [];
    return this.sockets.filter((socket, i) => {
      const bound = bounds.get(socket);
      const [low, high] = [watched[3 * i + 1] as number, watched[3 * i + 2] as number];
      return bound && !known.includes(socket) && (low < bound[0] - SLACK || high > bound[1] + SLACK);
    });
  }
}
