import { HANDS } from '../document/hands';
import { completeParams } from '../document/params';
import { idOf, socketAt } from '../document/sockets';
import type { Hand, ModuleDoc, Patch } from '../document/types';
import { buildGraph } from '../graph/graph';
import type { Graph } from '../graph/graph';
import { kindNamed } from '../kinds';
import { continuousOf } from '../kinds/knobs';
import { sameDriver } from '../graph/alike';
import { remembers } from '../simulate/laws';
import { sameLoads } from './sameWiring';

type Span = readonly [low: number, high: number];

const joined = (a: Span | undefined, values: readonly number[]): Span => [
  Math.min(a?.[0] ?? Infinity, ...values),
  Math.max(a?.[1] ?? -Infinity, ...values),
];

/** Where a module's knobs stand, by place; and all else that makes it what it is. */
function apart(m: ModuleDoc, bpm: number): { readonly knobs: ReadonlyMap<string, number>; readonly rest: string } {
  const kind = kindNamed(m.kind);
  if (!kind) return { knobs: new Map(), rest: JSON.stringify(m) };
  const params = completeParams(kind, m.params, bpm);
  // What only says how far others reach is not heard itself.
  const names = new Set(continuousOf(kind, params).flatMap((k) => (k.spec.reach ? [] : [k.name])));
  const knobs = [...names].flatMap((name) => {
    const value = params[name];
    return typeof value === 'number' ? [[socketAt(m.id, name), value] as const] : [];
  });
  const others = Object.entries(params).filter(([name]) => !names.has(name));
  const { outputOhms, inputOhms } = m;
  return { knobs: new Map(knobs), rest: JSON.stringify([m.kind, others, outputOhms, inputOhms]) };
}

/** The settings that a voltage hangs on. */
const setOf = ({ settings }: Patch): string =>
  JSON.stringify([settings.railVolts, settings.loading, settings.bpm, settings.seed]);

/**
 * How far each voltage can have gone since a patch began to play, through all that was edited meanwhile: every knob that
 * was turned counts as anywhere it has been, which covers what modules still remember of it. Of what was patched
 * otherwise, or set to another mode, the old sound may still ring on: nothing is known of it where modules remember.
 */
export class Ranged {
  private readonly spans = new Map<string, Span>();
  /** Modules that were made, wired or set otherwise while they were heard. */
  private readonly changed = new Set<string>();
  private everything = false;

  constructor(private now: Patch) {}

  /** Goes on as another state. */
  edit(after: Patch): void {
    const before = this.now;
    if (setOf(before) !== setOf(after)) this.everything = true;
    const { bpm } = after.settings;
    const was = new Map(before.modules.map((m) => [m.id, m]));
    for (const m of after.modules) {
      const old = was.get(m.id);
      if (!old) this.changed.add(m.id);
      else if (old !== m) this.turn(old, m, bpm);
    }
    for (const hand of [...before.hands, ...after.hands]) {
      if (before.hands.includes(hand) && after.hands.includes(hand)) continue;
      this.widen(hand.at, [...hand.points.map((p) => p.value), ...this.standing(before, hand.at)]);
    }
    const isWiredOtherwise =
      before.cables !== after.cables ||
      before.normals !== after.normals ||
      before.bypassed !== after.bypassed ||
      before.modules.length !== after.modules.length ||
      after.modules.some((m) => this.changed.has(m.id) && was.get(m.id) !== m);
    this.now = after;
    if (isWiredOtherwise) this.rewire(buildGraph(before), buildGraph(after));
  }

  private turn(was: ModuleDoc, m: ModuleDoc, bpm: number): void {
    const [before, after] = [apart(was, bpm), apart(m, bpm)];
    if (before.rest !== after.rest) this.changed.add(m.id);
    for (const [at, value] of after.knobs) {
      const old = before.knobs.get(at);
      if (old !== undefined && old !== value) this.widen(at, [old, value]);
    }
  }

  private standing(patch: Patch, at: string): number[] {
    const m = patch.modules.find((x) => x.id === idOf(at));
    const value = m && apart(m, patch.settings.bpm).knobs.get(at);
    return value === undefined ? [] : [value];
  }

  private widen(at: string, values: readonly number[]): void {
    this.spans.set(at, joined(this.spans.get(at), values));
  }

  private rewire(before: Graph, after: Graph): void {
    const was = new Map(before.modules.map((m) => [m.id, m]));
    for (const m of after.modules) {
      const old = was.get(m.id);
      const same = old?.inputs.every((s, i) => {
        const now = m.inputs[i];
        if (!now || now.socket !== s.socket || now.connected !== s.connected) return false;
        const [a, b] = [s.driver, now.driver];
        if (a.type !== 'output' || b.type !== 'output') return sameDriver(a, b);
        const [from, to] = [before.modules[a.module], after.modules[b.module]];
        return from?.id === to?.id && a.output === b.output && a.delayed === b.delayed;
      });
      if (!old || !same || old.inputs.length !== m.inputs.length || !sameLoads(old, m)) this.changed.add(m.id);
    }
  }

  /** The patch of now, with hands on every knob that was turned, anywhere it has been. */
  get patch(): Patch {
    const { now, spans } = this;
    const hands = [...spans].map(([at, span]): Hand => {
      const here = now.hands.filter((h) => h.at === at).flatMap((h) => h.points.map((p) => p.value));
      const [low, high] = joined(span, [...here, ...this.standing(now, at)]);
      return { at, points: [low, high].map((value, t) => ({ t, value })), interpolation: 'linear', loop: false };
    });
    // Where a knob has been counts, also where its limits have closed in on it since.
    const real = hands.filter((h) => this.standing(now, h.at).length > 0);
    return { ...now, hands: [...now.hands.filter((h) => !spans.has(h.at)), ...real] };
  }

  /** Modules of whose voltages nothing is known until play begins anew. */
  get unknown(): ReadonlySet<string> {
    const graph = buildGraph(this.now);
    if (this.everything) return new Set(graph.modules.map((m) => m.id));
    const crowded = this.crowded();
    const touched = new Set([...this.changed, ...crowded]);
    const looped = new Set(graph.groups.filter((g) => g.loop).flatMap((g) => g.modules));
    const unknown = new Set<string>();
    // What is downstream of a change, and of what remembers it.
    for (let grew = true; grew;) {
      grew = false;
      for (const m of graph.modules) {
        if (unknown.has(m.id)) continue;
        const drivers = m.inputs.flatMap(({ driver }) =>
          driver.type === 'output' ? [graph.modules[driver.module]?.id ?? ''] : [],
        );
        if (drivers.some((id) => touched.has(id)) && !touched.has(m.id)) {
          touched.add(m.id);
          grew = true;
        }
        const isOld = touched.has(m.id) && (looped.has(m.index) || remembers(m));
        if (isOld || drivers.some((id) => unknown.has(id)) || crowded.has(m.id)) {
          unknown.add(m.id);
          grew = true;
        }
      }
    }
    return unknown;
  }

  /** Modules on which more knobs were turned than a patch has hands for. */
  private crowded(): ReadonlySet<string> {
    const counts = new Map<string, number>();
    for (const at of this.spans.keys()) counts.set(idOf(at), (counts.get(idOf(at)) ?? 0) + 1);
    return new Set([...counts].filter(([, n]) => n > HANDS.each).map(([id]) => id));
  }
}
