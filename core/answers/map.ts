import { BoundsEngine } from '../bounds/bounds';
import type { ModuleBounds } from '../bounds/bounds';
import { travelOf } from '../bounds/faders';
import { knobPlace } from '../document/names';
import { idOf, partsOf } from '../document/sockets';
import type { Hand, Patch } from '../document/types';
import { applyEdits } from '../edit/edit';
import { heldAt, isOrigin } from '../findings/causes';
import { inputsNamed, sourceOf } from '../findings/paths';
import { buildGraph } from '../graph/graph';
import type { Graph, GraphInput, GraphModule } from '../graph/graph';
import { endsOf } from '../graph/strip';
import type { EndSpec } from '../kinds/kind';
import type { ParamValues } from '../kinds/params';
import type { Range } from '../law/affine';
import { countsOctaves } from '../units/ratios';
import { figuresOf } from './drive';

/** How a source reaches a destination. */
export type Reach = 'none' | 'direct' | 'multiplied' | 'gated';

/** The more directly a source reaches, the higher. */
export const REACH_RANK: Readonly<Record<Reach, number>> = { none: 0, gated: 1, multiplied: 2, direct: 3 };

/** How far one source alone moves one destination. */
export interface MapCell {
  readonly reach: Reach;
  /** Figures of the destination while everything else is held; null: silence. */
  readonly low: number | null;
  readonly high: number | null;
  /** The width of its drive, volts; 0 where the source moves nothing there. */
  readonly volts: number;
  /** The width in octaves where the unit counts them, else in the unit; null from silence. */
  readonly width: number | null;
  /** Where that lies in the destination's window, shares of it; null without a window. */
  readonly share: Range | null;
  /** +1: they rise together; −1: inverted; 0: neither. */
  readonly sign: -1 | 0 | 1;
}

export interface MapRow {
  /** The module, or for automation the knob, `module.param`. */
  readonly id: string;
  readonly name: string;
  readonly about: string;
  readonly is: 'source' | 'automation';
  /** The output that a route would begin at; null for automation. */
  readonly output: string | null;
  /** In the order of the columns. */
  readonly cells: readonly MapCell[];
}

export interface MapColumn {
  readonly at: string;
  readonly quantity: string;
  readonly unit: string;
}

/** Which source moves which destination, and how far. */
export interface PatchMap {
  readonly columns: readonly MapColumn[];
  readonly rows: readonly MapRow[];
}

export interface MapOptions {
  /** The mean of an output over the simulated window; where it is not known, the middle of its guaranteed range. */
  readonly mean?: (socket: string) => number | undefined;
}

const NOTHING: MapCell = { reach: 'none', low: null, high: null, volts: 0, width: null, share: null, sign: 0 };

/** Movements of less than this are none, volts. */
const STILL = 1e-9;

interface Column extends MapColumn {
  readonly m: GraphModule;
  readonly index: number;
  readonly end: EndSpec<ParamValues>;
  readonly inputs: readonly GraphInput[];
}

function columnsOf(graph: Graph): Column[] {
  return endsOf(graph).flatMap((at): Column[] => {
    const m = graph.modules.find((x) => x.id === idOf(at));
    const name = partsOf(at).name;
    const index = m?.kind.ends?.findIndex((e) => e.sockets.includes(name)) ?? -1;
    const end = m?.kind.ends?.[index];
    if (!m || !end) return [];
    const inputs = inputsNamed(m, end.sockets);
    return [{ at, m, index, end, inputs, quantity: end.quantity, unit: end.unit(m.params) }];
  });
}

const isGate = (s: GraphInput): boolean => s.spec.role === 'gate';

/** Whether what comes in there is multiplied by something else that is patched, or multiplies it. */
function multiplies(m: GraphModule, input: GraphInput): boolean {
  const name = input.spec.name;
  const driven = (names: readonly string[]): boolean =>
    inputsNamed(m, names).some((s) => s !== input && s.driver.type === 'output');
  return (m.kind.stage?.gains ?? []).some(
    ({ signals, controls }) =>
      (controls.includes(name) && driven(signals)) || (signals.includes(name) && driven(controls)),
  );
}

/** How far the signal of some outputs gets, by input socket. */
function reachOf(graph: Graph, outputs: ReadonlySet<string>): ReadonlyMap<string, Reach> {
  const found = new Map<string, Reach>();
  const visit = (from: ReadonlySet<string>, come: Exclude<Reach, 'none'>): void => {
    for (const m of graph.modules)
      for (const s of m.inputs) {
        if (!from.has(sourceOf(graph, s)?.socket ?? '')) continue;
        const reach = isGate(s) ? 'gated' : come;
        if (REACH_RANK[found.get(s.socket) ?? 'none'] >= REACH_RANK[reach]) continue;
        found.set(s.socket, reach);
        // What an origin puts out is its own: its inputs decide when and how.
        const passed = isOrigin(m) ? 'gated' : reach === 'direct' && multiplies(m, s) ? 'multiplied' : reach;
        visit(new Set(m.outputs.map((o) => o.socket)), passed);
      }
  };
  visit(outputs, 'direct');
  return found;
}

const bestOf = (reaches: readonly (Reach | undefined)[]): Reach =>
  reaches.reduce<Reach>((best, r = 'none') => (REACH_RANK[r] > REACH_RANK[best] ? r : best), 'none');

const driveIn = (bounds: ReadonlyMap<string, ModuleBounds>, { m, index }: Column): Range =>
  bounds.get(m.id)?.ends[index]?.drive ?? [0, 0];

function cellOf({ m, end }: Column, reach: Reach, [lo, hi]: Range, sign: -1 | 0 | 1): MapCell {
  const [low, high] = figuresOf(end, m.params, [lo, hi]);
  const window = end.window(m.params);
  const within = (volts: number): number =>
    window ? Math.min(1, Math.max(0, (volts - window[0]) / (window[1] - window[0]))) : 0;
  const octaves = countsOctaves(end.quantity);
  const width = low === null || high === null ? null : octaves ? (low > 0 ? Math.log2(high / low) : null) : high - low;
  const share: Range | null = window?.every(Number.isFinite) ? [within(lo), within(hi)] : null;
  return { reach, low, high, volts: hi - lo, width, share, sign };
}

/** What is varied in a row, everything else being held. */
interface Varied {
  readonly bounds: ReadonlyMap<string, ModuleBounds>;
  /** Bounds with what is varied at the lower and at the upper end of its way. */
  readonly ends: readonly [ReadonlyMap<string, ModuleBounds>, ReadonlyMap<string, ModuleBounds>];
  readonly reaches: ReadonlyMap<string, Reach>;
}

function cellsOf(columns: readonly Column[], { bounds, ends, reaches }: Varied): MapCell[] {
  return columns.map((c) => {
    const reach = bestOf(c.inputs.map((s) => reaches.get(s.socket)));
    if (reach === 'none') return NOTHING;
    const drive = driveIn(bounds, c);
    const [a, b] = ends.map((e) => driveIn(e, c)) as [Range, Range];
    const rise = b[0] + b[1] - a[0] - a[1];
    const sign = Math.abs(rise) < 1e-6 * Math.max(STILL, drive[1] - drive[0]) || rise === 0 ? 0 : rise > 0 ? 1 : -1;
    return cellOf(c, reach, drive, sign);
  });
}

const middle = ([lo, hi]: Range): number => (lo + hi) / 2;

/** The mean of an automated knob over its points, straight between them or in steps. */
function meanOf({ points, interpolation }: Hand): number {
  const [first] = points;
  const last = points.at(-1);
  if (!first || !last || last.t === first.t) return first?.value ?? 0;
  const areas = points.slice(1).map((p, i) => {
    const before = points[i] as typeof p;
    return (p.t - before.t) * (interpolation === 'hold' ? before.value : (before.value + p.value) / 2);
  });
  return areas.reduce((sum, x) => sum + x, 0) / (last.t - first.t);
}

/**
 * How far each source, and each automated knob, alone moves each destination: the width of the guaranteed range there
 * with all other independent sources held at their mean. A fader counts over its whole travel. Where a source arrives
 * multiplied by another, the other's mean is its factor: a carrier that swings evenly about 0 V leaves no width, yet the
 * path is told as multiplied. What only clocks or gates something there moves nothing of its own and is told as gated.
 */
export function patchMap(patch: Patch, { mean }: MapOptions = {}): PatchMap {
  const engine = new BoundsEngine();
  const whole = buildGraph(patch);
  const columns = columnsOf(whole);
  const own = engine.run(whole);
  const meanAt = (m: GraphModule, index: number): number => {
    const socket = m.outputs[index]?.socket ?? '';
    return mean?.(socket) ?? middle(own.get(m.id)?.outputs[index] ?? [0, 0]);
  };
  const origins = whole.modules.filter((m) => isOrigin(m) && !m.bypassed && m.outputs.length > 0);
  const still = applyEdits(
    { ...patch, hands: [] },
    patch.hands.map((h) => ({ do: 'set', module: idOf(h.at), param: partsOf(h.at).name, value: meanOf(h) }) as const),
  );
  const graph = patch.hands.length > 0 ? buildGraph(still) : whole;
  const heldBut = (id: string | null): Map<string, number> =>
    new Map(origins.flatMap((m) => (m.id === id ? [] : m.outputs.map((o, i) => [o.socket, meanAt(m, i)] as const))));
  const run = (g: Graph, volts: ReadonlyMap<string, number>): ReadonlyMap<string, ModuleBounds> =>
    engine.run(heldAt(g, volts, (s) => !isGate(s)));

  const sourceRow = (m: GraphModule): MapRow => {
    const others = heldBut(m.id);
    const used = new Set(graph.wiring.usedOutputs);
    const main = m.outputs.find((o) => used.has(o.socket)) ?? m.outputs[0];
    const index = main ? m.outputs.indexOf(main) : 0;
    const travel = travelOf(m);
    const [lo, hi] = travel ?? own.get(m.id)?.outputs[index] ?? [0, 0];
    const at = (volts: number): ReadonlyMap<string, ModuleBounds> => {
      // Its other outputs follow it: an inverted one the other way.
      const share = hi === lo ? 0 : (volts - lo) / (hi - lo);
      const along = m.outputs.map((o, i) => {
        const [a, b] = own.get(m.id)?.outputs[i] ?? [0, 0];
        const negated = m.kind.negated?.[o.name] !== undefined;
        return [o.socket, travel ? volts : negated ? b - share * (b - a) : a + share * (b - a)] as const;
      });
      return run(graph, new Map([...others, ...along]));
    };
    const ends = [at(lo), at(hi)] as const;
    const bounds = travel ? hull(columns, ends) : run(graph, others);
    const reaches = reachOf(graph, new Set(m.outputs.map((o) => o.socket)));
    const cells = cellsOf(columns, { bounds, ends, reaches });
    return {
      id: m.id,
      name: m.label,
      about: `${m.kind.title}, ${m.kind.brief(m.params)}`,
      is: 'source',
      output: main?.socket ?? null,
      cells,
    };
  };

  const handRow = (hand: Hand): MapRow => {
    const { id, name: param } = partsOf(hand.at);
    const values = hand.points.map((p) => p.value);
    const set = (value: number): Graph => buildGraph(applyEdits(still, [{ do: 'set', module: id, param, value }]));
    const means = heldBut(null);
    const ends = [run(set(Math.min(...values)), means), run(set(Math.max(...values)), means)] as const;
    const moving = buildGraph({ ...still, hands: [hand] });
    const m = moving.modules.find((x) => x.id === id);
    const reaches = new Map(reachOf(moving, new Set(m?.outputs.map((o) => o.socket) ?? [])));
    // A destination's own knob moves it without any input.
    for (const s of m?.inputs ?? []) reaches.set(s.socket, 'direct');
    const cells = cellsOf(columns, { bounds: run(moving, means), ends, reaches });
    return {
      id: hand.at,
      name: knobPlace(patch.modules, hand.at),
      about: 'Automation',
      is: 'automation',
      output: null,
      cells,
    };
  };

  const rows = [...origins.map(sourceRow), ...patch.hands.map(handRow)];
  return { columns: columns.map(({ at, quantity, unit }) => ({ at, quantity, unit })), rows };
}

/** Both ends of a travel together. */
function hull(
  columns: readonly Column[],
  ends: readonly ReadonlyMap<string, ModuleBounds>[],
): ReadonlyMap<string, ModuleBounds> {
  const [first, ...rest] = ends;
  const found = new Map(first ?? []);
  for (const { m, index } of columns) {
    const b = found.get(m.id);
    if (!b) continue;
    const drives = [b, ...rest.map((e) => e.get(m.id))].map((x) => x?.ends[index]?.drive ?? [0, 0]);
    const drive: Range = [Math.min(...drives.map((d) => d[0])), Math.max(...drives.map((d) => d[1]))];
    found.set(m.id, { ...b, ends: b.ends.map((e, i) => (i === index ? { ...e, drive } : e)) });
  }
  return found;
}
