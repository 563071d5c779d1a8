import { BoundsEngine } from '../bounds/bounds';
import { completeParams, existing } from '../document/params';
import type { Channel, ChannelMode, RackPlace } from '../document/rackTypes';
import { idOf, nameOf, partsOf } from '../document/sockets';
import type { Patch } from '../document/types';
import { buildGraph } from '../graph/graph';
import type { Graph, GraphModule } from '../graph/graph';
import { standInsFor } from '../kinds/standIns';
import type { Served, StandIn, Wanted } from '../kinds/standIns';
import type { ParamValues } from '../kinds/params';
import type { Range } from '../law/affine';
import { channelSettings, modeOf } from '../rack/holds';

/** How a channel serves a module. */
export interface Service {
  readonly cost: number;
  readonly mode: ChannelMode;
  readonly params: ParamValues;
  /** Where its sockets are there; null: the same names. */
  readonly sockets: Pick<Served, 'inputs' | 'outputs'> | null;
  /** What stands in, in words; null for its own kind. */
  readonly standIn: string | null;
}

/** A channel that serves a module. */
export interface Seat {
  readonly place: RackPlace;
  readonly service: Service;
}

export type Answer = { readonly service: Service } | { readonly why: string };

interface Piece {
  readonly m: GraphModule;
  readonly wanted: Wanted;
  /** Its settings as they are, complete. */
  readonly needs: ParamValues;
  /** The sockets that something hangs on: cables and normals. */
  readonly sockets: readonly string[];
}

/** Settings that exist, of all that a module has. */
function needsOf(patch: Patch, m: GraphModule): ParamValues {
  const all = completeParams(m.kind, patch.modules[m.index]?.params, patch.settings.bpm);
  return existing(m.kind, all);
}

/** Whether every socket that is used has its place there. */
function carries(sockets: readonly string[], served: Served): boolean {
  return sockets.every((name) => Object.hasOwn(served.inputs, name) || Object.hasOwn(served.outputs, name));
}

/** The knob that gives a voltage from a channel's normal. */
function fromNormal(channel: Channel, { fromNormal: from, needs }: Served): ParamValues | null {
  if (!from) return needs;
  const normal = channel.normals.find((n) => n.to === from.to);
  const volts = normal && 'volts' in normal ? normal.volts : fixedNormal(channel);
  return volts === 0 ? null : { ...needs, [from.param]: Number((from.volts / volts).toPrecision(12)) };
}

/** A normal that is built in as a setting. */
const fixedNormal = ({ modes: [mode] }: Channel): number => Number(mode.fixed.normalVolts ?? 0);

/** Tells of each module and channel whether and how it serves; alike ones are looked at once. */
export class Servers {
  private readonly pieces: ReadonlyMap<string, Piece>;
  /** By module, by what its channels have in common. */
  private readonly known = new Map<string, Map<number, Answer>>();
  private readonly signatures = new Map<string, number>();
  private readonly alike = new WeakMap<Channel, number>();
  private bounds: ReturnType<BoundsEngine['run']> | null = null;
  readonly graph: Graph;

  constructor(readonly patch: Patch) {
    this.graph = buildGraph(patch);
    const used = new Map<string, Set<string>>();
    const note = (socket: string): void => {
      const { id, name } = partsOf(socket);
      used.set(id, (used.get(id) ?? new Set()).add(name));
    };
    for (const c of [...this.graph.wiring.cables, ...this.graph.wiring.declared]) {
      note(c.to);
      if ('from' in c) note(c.from);
    }
    this.pieces = new Map(
      this.graph.modules.map((m) => [
        m.id,
        { m, needs: needsOf(patch, m), sockets: [...(used.get(m.id) ?? [])], wanted: this.wantedOf(m) },
      ]),
    );
  }

  private wantedOf(m: GraphModule): Wanted {
    const input = (name: string): number => m.inputs.findIndex((s) => s.spec.name === name);
    return {
      params: completeParams(m.kind, this.patch.modules[m.index]?.params, this.patch.settings.bpm),
      used: (name) => m.inputs[input(name)]?.connected ?? false,
      range: (name): Range => {
        this.bounds ??= new BoundsEngine().run(this.graph);
        return this.bounds.get(m.id)?.inputs[input(name)] ?? [0, 0];
      },
    };
  }

  /** A number that channels share which serve alike. */
  private signatureOf(channel: Channel): number {
    const known = this.alike.get(channel);
    if (known !== undefined) return known;
    const text = JSON.stringify([channel.modes, channel.normals]);
    const number = this.signatures.get(text) ?? this.signatures.size;
    this.signatures.set(text, number);
    this.alike.set(channel, number);
    return number;
  }

  /** How a channel serves a module, the cheapest way; or why it does not. */
  answer(id: string, channel: Channel): Answer {
    const key = this.signatureOf(channel);
    const answers = this.known.get(id) ?? new Map<number, Answer>();
    this.known.set(id, answers);
    const before = answers.get(key);
    if (before) return before;
    const found = this.look(id, channel);
    const lacking = 'service' in found ? this.lacking(id, channel, found.service) : null;
    const answer = lacking === null ? found : { why: lacking };
    answers.set(key, answer);
    return answer;
  }

  /** A voltage that the plan counts on at an empty socket, and that the channel does not carry. */
  private lacking(id: string, channel: Channel, service: Service): string | null {
    const { wiring } = this.graph;
    for (const n of wiring.declared) {
      if (!('volts' in n) || idOf(n.to) !== id || wiring.cableInto(n.to)) continue;
      const there = socketThere(service, nameOf(n.to));
      const has = channel.normals.some((x) => x.to === there && 'volts' in x && x.volts === n.volts);
      if (!has && n.volts !== 0) return `its ${there} has no ${n.volts} V normal`;
    }
    return null;
  }

  private look(id: string, channel: Channel): Answer {
    const piece = this.pieces.get(id);
    if (!piece) return { why: `there is no module ${id}` };
    const own = modeOf(channel, piece.m.kind.name);
    let why = 'it is a different type of module';
    if (own) {
      const held = channelSettings(own, piece.needs);
      if (held.ok) return { service: { cost: 0, mode: own, params: held.params, sockets: null, standIn: null } };
      why = held.why;
    }
    for (const stand of standInsFor(piece.m.kind.name)) {
      const mode = modeOf(channel, stand.by);
      const found = mode ? this.byStandIn(piece, channel, mode, stand) : null;
      if (found && 'service' in found) return found;
      if (found && !own) why = found.why;
    }
    return { why };
  }

  private byStandIn(piece: Piece, channel: Channel, mode: ChannelMode, stand: StandIn): Answer {
    let why = 'it can’t substitute with these settings';
    for (const served of stand.as(piece.wanted)) {
      if (!carries(piece.sockets, served)) continue;
      const needs = fromNormal(channel, served);
      const held = needs && channelSettings(mode, needs);
      if (held?.ok) {
        const says = stand.differs ? `${stand.says}; ${stand.differs}` : stand.says;
        const { inputs, outputs } = served;
        return {
          service: { cost: stand.cost, mode, params: held.params, sockets: { inputs, outputs }, standIn: says },
        };
      }
      if (held) why = held.why;
    }
    return { why };
  }
}

/** The name of a module's socket on the channel that serves it. */
export const socketThere = ({ sockets }: Service, name: string): string =>
  sockets ? (sockets.inputs[name] ?? sockets.outputs[name] ?? name) : name;

/** Which kinds could take a module's part. */
export const coversOf = (kind: string): string[] => [kind, ...new Set(standInsFor(kind).map((s) => s.by))];
