import type { Graph, GraphModule } from '../graph/graph';
import { sameHands } from '../graph/alike';
import { tracksOf } from '../graph/tracks';
import type { Track } from '../graph/tracks';
import type { NumberSpec } from '../kinds/params';

/** How long a knob takes to where it was set, seconds. */
export const RAMP_SECONDS = 0.005;

/** How long a knob moves from one value to another, seconds: one that glides has its own pace. */
export const rampSeconds = ({ glides }: Pick<NumberSpec, 'glides'>, from: number, to: number): number =>
  glides === undefined ? RAMP_SECONDS : Math.max(RAMP_SECONDS, Math.abs(to - from) / glides);

/** Whether a knob moves straight in octaves: a logarithmic one does, unless it glides. */
export const isInOctaves = (spec: Pick<NumberSpec, 'taper' | 'glides'>): boolean =>
  spec.taper === 'log' && spec.glides === undefined;

/**
 * Where a knob stands on its way from one value to another, at a share of its ramp: in a straight line, or straight in octaves.
 */
export function rampValue(spec: Pick<NumberSpec, 'taper' | 'glides'>, from: number, to: number, share: number): number {
  return isInOctaves(spec) && from > 0 && to > 0 ? from * (to / from) ** share : from + (to - from) * share;
}

interface Ramp {
  readonly spec: NumberSpec;
  readonly from: number;
  readonly to: number;
  /** The first sample that it has moved at. */
  readonly begins: number;
  readonly samples: number;
}

const standing = ({ spec, from, to, begins, samples }: Ramp, k: number): number =>
  k >= begins + samples - 1 ? to : rampValue(spec, from, to, Math.max(0, k - begins + 1) / samples);

const trackOf = (param: string, ramp: Ramp): Track => ({
  param,
  lo: Math.min(ramp.from, ramp.to),
  hi: Math.max(ramp.from, ramp.to),
  at: (k) => standing(ramp, k),
});

/** The knobs that are on their way to where an edit put them, each in a straight line of what is heard. */
export class Ramps {
  private readonly moving = new Map<string, Map<string, Ramp>>();

  /** Those of a module, as voltages that move its knobs. */
  of(id: string): Track[] {
    return [...(this.moving.get(id) ?? [])].map(([param, ramp]) => trackOf(param, ramp));
  }

  /** All knobs are where they were set. */
  forget(): void {
    this.moving.clear();
  }

  get any(): boolean {
    return this.moving.size > 0;
  }

  /** Sets off from where each knob stands after so many samples to where it stands in another graph. */
  aim(before: Graph, after: Graph, done: number): void {
    const was = new Map(before.modules.map((m) => [m.id, m]));
    for (const id of this.moving.keys())
      if (!after.modules.some((m) => m.id === id && m.kind === was.get(id)?.kind)) this.moving.delete(id);
    for (const now of after.modules) {
      const old = was.get(now.id);
      if (old && old.kind === now.kind && (old.params !== now.params || !sameHands(old.hands, now.hands)))
        this.aimModule(old, now, done, after.sampleRate);
    }
  }

  private aimModule(was: GraphModule, now: GraphModule, done: number, sampleRate: number): void {
    const byParam = this.moving.get(now.id) ?? new Map<string, Ramp>();
    const handed = tracksOf(was, sampleRate);
    for (const [param, spec] of Object.entries(now.kind.params)) {
      const [before, to] = [was.params[param], now.params[param]];
      // A hand that let go of the knob leaves it where it had turned it.
      const hand = handed.find((t) => t.param === param);
      if (before === to && !hand) continue;
      if (spec.type !== 'number' || spec.whole || typeof before !== 'number' || typeof to !== 'number') {
        byParam.delete(param);
        continue;
      }
      const old = byParam.get(param);
      const from = hand && done > 0 ? hand.at(done - 1) : old ? standing(old, done - 1) : before;
      const samples = Math.max(1, Math.round(rampSeconds(spec, from, to) * sampleRate));
      byParam.set(param, { spec: spec as NumberSpec, from, to, begins: done, samples });
    }
    if (byParam.size > 0) this.moving.set(now.id, byParam);
  }

  /** Forgets what has arrived after so many samples: the modules of which nothing moves any more. */
  arrived(done: number): string[] {
    return [...this.moving].flatMap(([id, byParam]) => {
      for (const [param, { begins, samples }] of byParam) if (done >= begins + samples) byParam.delete(param);
      if (byParam.size > 0) return [];
      this.moving.delete(id);
      return [id];
    });
  }
}
