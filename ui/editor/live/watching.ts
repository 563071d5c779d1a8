import { buildGraph } from '@/core';
import type { Patch } from '@/core';
import { meters } from '@/ui/session/meters';
import type { LiveReport } from '@/wire/live';
import type { Sound } from './sound';

type Bounds = ReadonlyMap<string, readonly [number, number]>;

/** The tolerance for leaving the bound, volts: samples come in single precision. */
const SLACK = 1e-4;

/** What is looked at while a patch plays: every output's range, and the traces of what is pinned. */
export class Watching {
  private sockets: readonly string[] = [];
  private pins: readonly string[] = [];
  private bounds: Bounds = new Map();
  private told = '';

  /** What is pinned, and how far each output can go. */
  look(pins: readonly string[], bounds: Bounds): void {
    this.pins = pins;
    this.bounds = bounds;
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

  /**
   * Sockets that were seen beyond their bound: a fault of the prediction. After an edit what modules remember may still
   * be, so nobody asks then.
   */
  beyond({ watched }: LiveReport, known: readonly string[]): string[] {
    if (watched.length !== 3 * this.sockets.length) return [];
    return this.sockets.filter((socket, i) => {
      const bound = this.bounds.get(socket);
      const [low, high] = [watched[3 * i + 1] as number, watched[3 * i + 2] as number];
      return bound && !known.includes(socket) && (low < bound[0] - SLACK || high > bound[1] + SLACK);
    });
  }
}
