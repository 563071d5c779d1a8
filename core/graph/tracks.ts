import { nameOf } from '../document/sockets';
import type { Hand } from '../document/types';
import { drawnAt, looped } from '../kinds/drawn';
import type { Near } from '../kinds/drawn';
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

/** Where a hand is at `t` seconds. */
export function handAt({ points, interpolation, loop }: Hand, t: number, near: Near = { index: 0 }): number {
  const period = points.at(-1)?.t ?? 0;
  const at = loop && period > 0 ? looped(t, period) : t;
  return drawnAt(points, (p) => p.value, at, interpolation === 'hold', near);
}

/** How hands turn a module's knobs, from the run's first sample on. */
export function tracksOf({ hands }: Pick<GraphModule, 'hands'>, sampleRate: number): Track[] {
  return hands.map((hand): Track => {
    const values = hand.points.map((p) => p.value);
    const near = { index: 0 };
    return {
      param: nameOf(hand.at),
      lo: Math.min(...values),
      hi: Math.max(...values),
      at: (k) => handAt(hand, k / sampleRate, near),
    };
  });
}

/** Whether a module's outputs are exactly linear in each of these parameters, and remember nothing. */
export function isLinearIn({ kind, params, inputs }: GraphModule, tracks: readonly Track[]): boolean {
  const connected = (name: string): boolean => inputs.find((s) => s.spec.name === name)?.connected ?? false;
  const linear = kind.panel?.linear?.(params) ?? [];
  return kind.kernel === undefined && !kind.memory(params, connected) && tracks.every((t) => linear.includes(t.param));
}
