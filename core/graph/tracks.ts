import { nameOf } from '../document/sockets';
import { drawnAt, looped } from '../kinds/drawn';
import type { GraphModule } from './graph';

/** How a parameter moves through a run. */
export interface Track {
  readonly param: string;
  /** All values that it takes lie between these. */
  readonly lo: number;
  readonly hi: number;
  /** Its value at sample `k`. */
  at(k: number): number;
}

/** How hands turn a module's knobs, from the run's first sample on. */
export function tracksOf({ hands }: GraphModule, sampleRate: number): Track[] {
  return hands.map(({ at, points, interpolation, loop }): Track => {
    const values = points.map((p) => p.value);
    const period = points.at(-1)?.t ?? 0;
    const near = { index: 0 };
    const turns = loop && period > 0;
    return {
      param: nameOf(at),
      lo: Math.min(...values),
      hi: Math.max(...values),
      at(k) {
        const t = k / sampleRate;
        return drawnAt(points, (p) => p.value, turns ? looped(t, period) : t, interpolation === 'hold', near);
      },
    };
  });
}

/** Whether a module's outputs are exactly linear in each of these parameters, and remember nothing. */
export function isLinearIn({ kind, params, inputs }: GraphModule, tracks: readonly Track[]): boolean {
  const connected = (name: string): boolean => inputs.find((s) => s.spec.name === name)?.connected ?? false;
  const linear = kind.linear?.(params) ?? [];
  return kind.kernel === undefined && !kind.memory(params, connected) && tracks.every((t) => linear.includes(t.param));
}
