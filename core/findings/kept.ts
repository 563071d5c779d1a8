import type { ModuleBounds } from '../bounds/bounds';
import { idOf } from '../document/sockets';
import type { Patch } from '../document/types';
import type { Graph, GraphModule } from '../graph/graph';
import type { Range } from '../law/affine';
import type { Found } from './finding';
import { isFromFix } from './insert';
import { gainThrough, lawAt } from './paths';

/** The share of the movement at a finding that its fix must leave. */
export const LEAST_LEFT = 0.1;
/** Movement below this is none, volts. */
export const STILL = 1e-6;

export const isSame = (a: Pick<Found, 'code' | 'at'>, b: Pick<Found, 'code' | 'at'>): boolean =>
  a.code === b.code && a.at === b.at;

/** All modules that what a module puts out gets to, itself included. */
export function reachedFrom(graph: Graph, id: string): Set<string> {
  const found = new Set<string>();
  const visit = (name: string): void => {
    if (found.has(name)) return;
    found.add(name);
    const index = graph.modules.findIndex((m) => m.id === name);
    for (const m of graph.modules)
      if (m.inputs.some((s) => s.driver.type === 'output' && s.driver.module === index)) visit(m.id);
  };
  visit(id);
  return found;
}

/** The sockets on which the findings at some modules hang: their own, and those of what comes right behind them. */
export function regionOf(graph: Graph, ids: ReadonlySet<string>): string[] {
  const at = graph.modules.filter((m) => ids.has(m.id));
  const indexes = new Set(at.map((m) => m.index));
  const next = graph.modules.filter(
    (m) => !ids.has(m.id) && m.inputs.some((s) => s.driver.type === 'output' && indexes.has(s.driver.module)),
  );
  return [...at, ...next].flatMap((m) => [...m.outputs, ...m.inputs].map((s) => s.socket));
}

const widthOf = ([lo, hi]: Range): number => hi - lo;

/**
 * How far what a finding is about moves, volts: the drive of a destination within what it responds to, the voltage of
 * any other socket, or a module's first output.
 */
export function movementAt(graph: Graph, bounds: ReadonlyMap<string, ModuleBounds>, at: string): number {
  const m = graph.modules.find((x) => x.id === idOf(at));
  const known = m && bounds.get(m.id);
  if (!m || !known) return 0;
  const input = m.inputs.findIndex((s) => s.socket === at);
  if (input < 0) {
    const output = Math.max(
      0,
      m.outputs.findIndex((o) => o.socket === at),
    );
    return widthOf(known.outputs[output] ?? [0, 0]);
  }
  const name = m.inputs[input]?.spec.name ?? '';
  const end = m.kind.ends?.findIndex((e) => e.sockets.includes(name)) ?? -1;
  if (end < 0) return widthOf(known.inputs[input] ?? [0, 0]);
  const [lo, hi] = known.ends[end]?.drive ?? [0, 0];
  const [from, to] = m.kind.ends?.[end]?.window(m.params) ?? [-Infinity, Infinity];
  return Math.max(0, Math.min(hi, to) - Math.max(lo, from));
}

/** Whether a target asks for silence there: no movement need be left. */
export const isSilenced = (patch: Patch, at: string): boolean =>
  patch.targets.some((t) => idOf(t.at) === idOf(at) && 'low' in t && t.low === 'silent');

const loopedIn = (graph: Graph): string[] =>
  graph.groups.flatMap((g) => (g.loop ? g.modules.map((i) => graph.modules[i]?.id ?? '') : []));

/** Whether a module is in a loop that was in none before. */
export function closesLoop(before: Graph, after: Graph): boolean {
  const known = new Set(loopedIn(before));
  return loopedIn(after).some((id) => !known.has(id));
}

/** Volts and gains that differ by less are the same. */
const ALIKE = 1e-9;

/** What a stage of one signal makes of it, as a gain and an offset; null of all others. */
function stageOf(m: GraphModule | undefined): { readonly gain: number; readonly offset: number } | null {
  const [signal, ...others] = m?.inputs.filter((s) => s.driver.type === 'output' || s.plugged) ?? [];
  if (!m || !signal || others.length > 0 || signal.spec.role !== 'signal' || m.kind.stage?.lift === undefined)
    return null;
  const output = m.outputs[0]?.name ?? '';
  const rest = lawAt(m, output, (s) => (s.driver.type === 'volts' ? s.driver.volts : 0));
  if (rest === null) return null;
  return {
    gain: gainThrough(m, signal, output, (s) => (s.driver.type === 'volts' ? s.driver.volts : 0)),
    offset: rest,
  };
}

/** The stages that fixes added and that do nothing: alone, or together with the one right behind them. */
function idleStages(graph: Graph): string[] {
  return graph.modules.flatMap((m) => {
    const own = stageOf(m);
    if (!own) return [];
    if (Math.abs(own.gain - 1) < ALIKE && Math.abs(own.offset) < ALIKE) return isFromFix(m.id) ? [m.id] : [];
    const next = graph.modules.filter((x) =>
      x.inputs.some((s) => s.driver.type === 'output' && s.driver.module === m.index),
    );
    const [only] = next;
    const behind = next.length === 1 ? stageOf(only) : null;
    if (!behind || !only || !(isFromFix(m.id) || isFromFix(only.id))) return [];
    const [gain, offset] = [own.gain * behind.gain, own.offset * behind.gain + behind.offset];
    return Math.abs(gain - 1) < ALIKE && Math.abs(offset) < ALIKE ? [m.id] : [];
  });
}

/** Whether a stage that a fix added does nothing after an edit that did something before, or another does so with it. */
export function wastesStage(before: Graph, after: Graph): boolean {
  const known = new Set(idleStages(before));
  return idleStages(after).some((id) => !known.has(id));
}
