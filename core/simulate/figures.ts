import type { GraphModule } from '../graph/graph';
import type { EndSpec } from '../kinds/kind';
import type { ParamValues } from '../kinds/params';
import { tracksOf } from '../graph/tracks';
import { middleOf, stepAt } from './steps';
import type { Track } from '../graph/tracks';

const order = (x: number | null): number => x ?? -Infinity;

/** What a destination's figure was at least and at most while hands turned its module's knobs. */
export class Figures {
  private readonly tracks: readonly Track[];
  private readonly step: number;
  private least: number | null | undefined;
  private most: number | null | undefined;

  constructor(
    private readonly m: GraphModule,
    private readonly end: EndSpec<ParamValues>,
    sampleRate: number,
    /** The first sample that counts. */
    private readonly start = 0,
  ) {
    this.tracks = tracksOf(m, sampleRate);
    this.step = stepAt(sampleRate);
  }

  /** Steps begin at multiples of their length, as those of the kernels do. */
  add(drive: Float64Array, count: number, k0: number): void {
    for (let i = Math.max(0, Math.min(count, this.start - k0)); i < count;) {
      const n = Math.floor((k0 + i) / this.step);
      const to = Math.min(count, (n + 1) * this.step - k0);
      const middle = middleOf(n, this.step);
      const params = { ...this.m.params, ...Object.fromEntries(this.tracks.map((t) => [t.param, t.at(middle)])) };
      let [low, high] = [Infinity, -Infinity];
      for (; i < to; i++) {
        low = Math.min(low, drive[i] as number);
        high = Math.max(high, drive[i] as number);
      }
      for (const volts of this.end.span?.(params, low, high) ?? [low, high]) this.take(this.end.value(params, volts));
    }
  }

  private take(figure: number | null): void {
    if (this.least === undefined || order(figure) < order(this.least)) this.least = figure;
    if (this.most === undefined || order(figure) > order(this.most)) this.most = figure;
  }

  get range(): [number | null, number | null] {
    return [this.least ?? null, this.most ?? null];
  }
}
