import { idOf, nameOf, partsOf, socketAt } from '../document/sockets';
import { paramsInForce } from '../document/params';
import type { Hand, Patch } from '../document/types';
import { kindNamed } from '../kinds';
import type { InputSpec, Kind, Loading } from '../kinds/kind';
import type { ParamValues } from '../kinds/params';
import { loadingOf } from './loading';
import { arrange } from './order';
import type { Edge, Group } from './order';

/** What an input carries. */
export type Driver =
  | { readonly type: 'volts'; readonly volts: number }
  | { readonly type: 'output'; readonly module: number; readonly output: number; readonly delayed: boolean };

export interface GraphInput {
  readonly spec: InputSpec;
  /** `moduleId.name` */
  readonly socket: string;
  readonly driver: Driver;
  /** A cable is in it. */
  readonly plugged: boolean;
  /** Plugged, or it carries a declared normal. */
  readonly connected: boolean;
}

export interface GraphOutput {
  readonly name: string;
  readonly socket: string;
  /** What loading leaves of its voltage, 0..1. */
  readonly factor: number;
  /** What its own gain is off by, before the rails; 1 unless a tolerance is asked for. */
  readonly gain?: number;
  /** What it is off by, volts, likewise. */
  readonly offset?: number;
}

export interface GraphModule {
  readonly index: number;
  readonly id: string;
  readonly label: string;
  readonly kind: Kind;
  readonly params: ParamValues;
  readonly inputs: readonly GraphInput[];
  readonly outputs: readonly GraphOutput[];
  readonly loading: Loading;
  /** Hands that turn its knobs; `params` holds where they begin. */
  readonly hands: readonly Hand[];
}

export interface Graph {
  readonly patch: Patch;
  readonly modules: readonly GraphModule[];
  readonly groups: readonly Group<Edge>[];
  readonly sampleRate: number;
}

interface Draft {
  readonly index: number;
  readonly id: string;
  readonly kind: Kind;
  readonly params: ParamValues;
  readonly inputs: readonly InputSpec[];
  readonly outputs: readonly string[];
}

interface ShapeOf extends Pick<Draft, 'kind' | 'params' | 'inputs' | 'outputs'> {
  readonly bpm: number;
}

/** By the module's own object: documents are never changed in place, and an edit keeps all that it does not touch. */
const shapes = new WeakMap<Patch['modules'][number], ShapeOf>();

function shapeOf(m: Patch['modules'][number], bpm: number): ShapeOf {
  const known = shapes.get(m);
  if (known?.bpm === bpm) return known;
  const kind = kindNamed(m.kind);
  if (!kind) throw new Error(`there is no kind ${m.kind}`);
  const params = paramsInForce(kind, m.params, bpm);
  const shape = { bpm, kind, params, inputs: kind.inputs(params), outputs: kind.outputs(params) };
  shapes.set(m, shape);
  return shape;
}

/** A patch that passed `parsePatch`, with every default, normal, loop and load worked out. */
export function buildGraph(patch: Patch): Graph {
  const drafts = patch.modules.map((m, index): Draft => ({ index, id: m.id, ...shapeOf(m, patch.settings.bpm) }));
  const wires = new Wires(patch, drafts);
  const edges = drafts.flatMap((d) => d.inputs.map((spec) => wires.edge(d, spec)).filter((e) => e !== null));
  const groups = arrange(
    drafts.map((d) => d.index),
    edges,
  );
  const delayed = new Set<Edge>(groups.flatMap((g) => g.delayed));
  const delayedSockets = new Set(edges.filter((e) => delayed.has(e)).map((e) => e.socket));
  const loads = loadingOf(patch, drafts);
  const hands = handsOf(patch);
  const modules = drafts.map((d): GraphModule => {
    const { label } = patch.modules[d.index] ?? {};
    return {
      index: d.index,
      id: d.id,
      label: label ?? d.kind.title,
      kind: d.kind,
      params: handed(d.params, hands.get(d.id)),
      hands: hands.get(d.id) ?? NO_HANDS,
      inputs: d.inputs.map((spec) => wires.input(d, spec, delayedSockets)),
      outputs: d.outputs.map((name) => ({
        name,
        socket: socketAt(d.id, name),
        factor: loads.factor(socketAt(d.id, name)),
      })),
      loading: loads.of(d.id),
    };
  });
  return { patch, modules, groups, sampleRate: sampleRateOf(patch, drafts) };
}

const NO_HANDS: readonly Hand[] = [];

function handsOf({ hands }: Patch): ReadonlyMap<string, readonly Hand[]> {
  const found = new Map<string, Hand[]>();
  for (const hand of hands) found.set(idOf(hand.at), [...(found.get(idOf(hand.at)) ?? []), hand]);
  return found;
}

/** Settings as they are when the hands begin. */
function handed(params: ParamValues, hands: readonly Hand[] | undefined): ParamValues {
  if (!hands) return params;
  return { ...params, ...Object.fromEntries(hands.map((h) => [nameOf(h.at), h.points[0]?.value ?? 0])) };
}

function sampleRateOf(patch: Patch, drafts: readonly Draft[]): number {
  if (patch.settings.sampleRate !== 'auto') return patch.settings.sampleRate;
  const fast = drafts.some((d) => d.kind.audio || Number(d.params.rateHz ?? 0) > 50);
  return fast ? 48_000 : 8_000;
}

type Carried =
  { readonly from: string; readonly declared: boolean } | { readonly volts: number; readonly declared: boolean };

/** Who drives what: cables first, then the patch's normals, then the kinds'. */
class Wires {
  private readonly cables: ReadonlyMap<string, string>;
  private readonly sources: ReadonlySet<string>;
  private readonly normals: ReadonlyMap<string, Patch['normals'][number]>;
  private readonly byId: ReadonlyMap<string, Draft>;
  private readonly known = new Map<string, Carried>();

  constructor(patch: Patch, drafts: readonly Draft[]) {
    this.cables = new Map(patch.cables.map((c) => [c.to, c.from]));
    this.sources = new Set(patch.cables.map((c) => c.from));
    this.normals = new Map(patch.normals.map((n) => [n.to, n]));
    this.byId = new Map(drafts.map((d) => [d.id, d]));
  }

  private split(socket: string): { draft: Draft | undefined; name: string } {
    const { id, name } = partsOf(socket);
    return { draft: this.byId.get(id), name };
  }

  /**
   * What an input carries: followed from normal to normal to where it comes from, once for all on the way. Normals that
   * go round in a ring carry 0 V.
   */
  private carried(socket: string, spec: InputSpec): Carried {
    const way: string[] = [];
    const passed = new Set<string>();
    let [at, own] = [socket, spec];
    let end: Carried | undefined;
    while (!end) {
      const known = this.known.get(at);
      const next = known ?? (passed.has(at) ? ({ volts: 0, declared: false } as const) : this.nextOf(at, own));
      if ('socket' in next) {
        passed.add(at);
        way.push(at);
        [at, own] = [next.socket, next.spec];
      } else {
        end = next;
        if (!passed.has(at)) this.known.set(at, end);
      }
    }
    for (const stop of way.toReversed()) {
      end = { ...end, declared: true };
      this.known.set(stop, end);
    }
    return end;
  }

  /** What a socket carries by itself, or the input that it shares with. */
  private nextOf(socket: string, spec: InputSpec): Carried | { readonly socket: string; readonly spec: InputSpec } {
    const cable = this.cables.get(socket);
    if (cable !== undefined) return { from: cable, declared: true };
    const normal = this.normals.get(socket);
    if (!normal) return { volts: spec.normal, declared: spec.normalled };
    if ('volts' in normal) return { volts: normal.volts, declared: true };
    if (normal.brokenBy === 'source' && this.sources.has(normal.from)) return { volts: 0, declared: false };
    const { draft, name } = this.split(normal.from);
    const shared = draft?.inputs.find((s) => s.name === name);
    return shared ? { socket: normal.from, spec: shared } : { from: normal.from, declared: true };
  }

  edge(d: Draft, spec: InputSpec): (Edge & { readonly socket: string }) | null {
    const socket = socketAt(d.id, spec.name);
    const carried = this.carried(socket, spec);
    if (!('from' in carried)) return null;
    const from = this.split(carried.from).draft;
    return from ? { from: from.index, to: d.index, socket } : null;
  }

  input(d: Draft, spec: InputSpec, delayed: ReadonlySet<string>): GraphInput {
    const socket = socketAt(d.id, spec.name);
    const carried = this.carried(socket, spec);
    const base = { spec, socket, plugged: this.cables.has(socket), connected: carried.declared };
    if (!('from' in carried)) return { ...base, driver: { type: 'volts', volts: carried.volts } };
    const { draft, name } = this.split(carried.from);
    const from = draft?.index ?? -1;
    const output = draft?.outputs.indexOf(name) ?? -1;
    return { ...base, driver: { type: 'output', module: from, output, delayed: delayed.has(socket) } };
  }
}
