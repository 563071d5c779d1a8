import { moduleNames } from '../document/names';
import { completeParams, withTempo } from '../document/params';
import { realHands, realParams } from '../document/real';
import { idOf, nameOf, partsOf, socketAt } from '../document/sockets';
import type { Cable, Hand, ModuleDoc, Normal, Patch } from '../document/types';
import { kindNamed } from '../kinds';
import type { InputSpec, Kind } from '../kinds/kind';
import type { ParamValues } from '../kinds/params';

/** A module with its settings in force: defaults, tempo and the start of its hands worked out. */
export interface WiredModule {
  readonly index: number;
  readonly id: string;
  readonly label: string;
  readonly kind: Kind;
  readonly params: ParamValues;
  readonly inputs: readonly InputSpec[];
  readonly outputs: readonly string[];
  /** The same as sockets, `moduleId.name`, in the same order. */
  readonly inputSockets: readonly string[];
  readonly outputSockets: readonly string[];
  /** Hands that turn its knobs; a knob that the tempo sets has none. */
  readonly hands: readonly Hand[];
  /** Parameters that a hand or the tempo sets: turning their knob changes nothing. */
  readonly overridden: ReadonlySet<string>;
  /** It is out of its path for now. */
  readonly bypassed: boolean;
}

/**
 * What an input carries: an output, by a cable or a normal, or a standing voltage. A normal that shares what another
 * input gets names the input whose cable it hangs on.
 */
export type Feed =
  | { readonly by: 'cable'; readonly from: string }
  | { readonly by: 'normal'; readonly from: string; readonly via: string | null }
  | { readonly by: 'volts'; readonly volts: number; readonly declared: boolean };

/** A connection that carries an output to an input. */
export interface Wire extends Cable {
  readonly by: 'cable' | 'normal';
  /** The input whose cable a normal hangs on, where it shares what that input gets. */
  readonly via: string | null;
}

/** A normal that a plug breaks. */
export type BrokenNormal =
  { readonly to: string; readonly volts: number } | { readonly to: string; readonly from: string };

/** A normal with another socket as its source. */
export type Link = Extract<Normal, { readonly from: string }>;

const NO_HANDS: readonly Hand[] = [];
const NOTHING: ReadonlySet<string> = new Set();

interface Shape extends Pick<WiredModule, 'kind' | 'params' | 'inputs' | 'outputs' | 'inputSockets' | 'outputSockets'> {
  readonly bpm: number;
  /** Before the tempo takes the place of a rate. */
  readonly complete: ParamValues;
  /** The module where no hand turns it, as it was wired last. */
  wired: WiredModule | null;
}

/** By the module's own object: documents are never changed in place, and an edit keeps all that it does not touch. */
const shapes = new WeakMap<ModuleDoc, Shape>();

function shapeOf(m: ModuleDoc, bpm: number): Shape {
  const known = shapes.get(m);
  if (known?.bpm === bpm) return known;
  const kind = kindNamed(m.kind);
  if (!kind) throw new Error(`there is no kind ${m.kind}`);
  const complete = realParams(kind, completeParams(kind, m.params, bpm), m.real);
  const params = withTempo(kind, complete, bpm);
  const [inputs, outputs] = [kind.inputs(params), kind.outputs(params)];
  const inputSockets = inputs.map((s) => socketAt(m.id, s.name));
  const outputSockets = outputs.map((name) => socketAt(m.id, name));
  const shape: Shape = { bpm, kind, complete, params, inputs, outputs, inputSockets, outputSockets, wired: null };
  shapes.set(m, shape);
  return shape;
}

/** A list by keys, in the order in which they first stand there. */
export const grouped = <T>(list: readonly T[], keyOf: (x: T) => string): Map<string, T[]> => {
  const groups = new Map<string, T[]>();
  for (const x of list) {
    const key = keyOf(x);
    const group = groups.get(key);
    if (group) group.push(x);
    else groups.set(key, [x]);
  }
  return groups;
};

/**
 * A patch's cables, normals (its own and its kinds'), bypassed stages, hands and tempo, resolved once. Loading, bounds,
 * simulation, solver, assigning, sheet and live engine ask this, and nobody asks the document.
 */
export class Wiring {
  readonly modules: readonly WiredModule[];
  readonly cables: readonly Cable[];
  private readonly into: ReadonlyMap<string, Cable>;
  private readonly from: ReadonlyMap<string, readonly Cable[]>;
  private readonly normals: ReadonlyMap<string, Normal>;
  private readonly byId: ReadonlyMap<string, WiredModule>;
  private readonly feeds = new Map<string, Feed>();

  constructor(patch: Patch) {
    const hands = grouped(patch.hands, (h) => idOf(h.at));
    const bypassed = new Set(patch.bypassed.map((b) => b.module));
    const names = moduleNames(patch.modules);
    this.modules = patch.modules.map((m, index) =>
      wired(
        m,
        { index, label: names.get(m.id) ?? m.id, bypassed: bypassed.has(m.id) },
        patch.settings.bpm,
        hands.get(m.id) ?? NO_HANDS,
      ),
    );
    this.byId = new Map(this.modules.map((m) => [m.id, m]));
    this.cables = patch.cables;
    this.into = new Map(patch.cables.map((c) => [c.to, c]));
    this.from = grouped(patch.cables, (c) => c.from);
    this.normals = new Map(patch.normals.map((n) => [n.to, n]));
  }

  module(id: string): WiredModule | undefined {
    return this.byId.get(id);
  }

  cableInto(input: string): Cable | undefined {
    return this.into.get(input);
  }

  cablesFrom(output: string): readonly Cable[] {
    return this.from.get(output) ?? [];
  }

  /** The normal that the patch gives an input, whether or not something breaks it. */
  normalOf(input: string): Normal | undefined {
    return this.normals.get(input);
  }

  /** All normals that the patch gives, broken ones too. */
  get declared(): readonly Normal[] {
    return [...this.normals.values()];
  }

  /** Those of them that lead from one socket to another. */
  get links(): readonly Link[] {
    return this.declared.filter((n): n is Link => 'from' in n);
  }

  /** Every connection that carries an output to an input: the cables in their order, then the normals that act. */
  get wires(): readonly Wire[] {
    const normals = this.modules
      .flatMap((m) => m.inputSockets)
      .flatMap((to): Wire[] => {
        const feed = this.feed(to);
        return feed.by === 'normal' ? [{ from: feed.from, to, by: 'normal', via: feed.via }] : [];
      });
    return [...this.cables.map((c): Wire => ({ ...c, by: 'cable', via: null })), ...normals];
  }

  /** Whether a plug in its source has broken the normal of an input that is not plugged itself. */
  isBroken(normal: Link): boolean {
    return normal.brokenBy === 'source' && !this.into.has(normal.to) && this.from.has(normal.from);
  }

  /** Outputs that a cable is plugged into, or that a normal leads from, whether or not it is broken. */
  get usedOutputs(): ReadonlySet<string> {
    return new Set([...this.from.keys(), ...this.links.map((n) => n.from)]);
  }

  /** The normals that a cable breaks where it is plugged: the input's own, and those that end when their source is. */
  brokenBy(cable: Cable): BrokenNormal[] {
    const declared = this.normals.get(cable.to);
    const spec = this.specOf(cable.to);
    const own: BrokenNormal[] = declared
      ? ['volts' in declared ? { to: declared.to, volts: declared.volts } : { to: declared.to, from: declared.from }]
      : spec && spec.normal !== 0
        ? [{ to: cable.to, volts: spec.normal }]
        : [];
    const bySource = this.links.filter((n) => n.brokenBy === 'source' && n.from === cable.from && n.to !== cable.to);
    return [...own, ...bySource.map(({ to, from }) => ({ to, from }))];
  }

  private specOf(input: string): InputSpec | undefined {
    const { id, name } = partsOf(input);
    return this.byId.get(id)?.inputs.find((s) => s.name === name);
  }

  /**
   * What an input carries: cables first, then the patch's normals, then its kind's. It is followed from normal to normal
   * to where it comes from, once for all on the way. Normals that go round in a ring carry 0 V.
   */
  feed(input: string): Feed {
    const known = this.feeds.get(input);
    if (known) return known;
    const next = this.nextOf(input);
    if (typeof next === 'string') return this.followed(input);
    this.feeds.set(input, next);
    return next;
  }

  private followed(input: string): Feed {
    const way: string[] = [];
    const passed = new Set<string>();
    let at = input;
    let end: Feed | undefined;
    while (!end) {
      const next: Feed | string = this.feeds.get(at) ?? (passed.has(at) ? RING : this.nextOf(at));
      if (typeof next === 'string') {
        passed.add(at);
        way.push(at);
        at = next;
      } else {
        end = next;
        if (!passed.has(at)) this.feeds.set(at, end);
      }
    }
    for (const stop of way.toReversed()) {
      end = end.by === 'volts' ? { ...end, declared: true } : byNormal(end, at);
      this.feeds.set(stop, end);
    }
    return end;
  }

  /** What a socket carries by itself, or the input that it shares with. */
  private nextOf(input: string): Feed | string {
    const cable = this.into.get(input);
    if (cable) return { by: 'cable', from: cable.from };
    const normal = this.normals.get(input);
    if (!normal) {
      const spec = this.specOf(input);
      return spec ? ownFeed(spec) : RING;
    }
    if ('volts' in normal) return { by: 'volts', volts: normal.volts, declared: true };
    if (this.isBroken(normal)) return { by: 'volts', volts: 0, declared: false };
    return this.specOf(normal.from) ? normal.from : { by: 'normal', from: normal.from, via: null };
  }
}

const byNormal = (feed: Exclude<Feed, { by: 'volts' }>, at: string): Feed =>
  feed.by === 'cable' ? { by: 'normal', from: feed.from, via: at } : feed;

const RING: Feed = { by: 'volts', volts: 0, declared: false };

const ownFeeds = new WeakMap<InputSpec, Feed>();

/** What an input carries by its kind, while nothing else is given to it. */
function ownFeed(spec: InputSpec): Feed {
  const known = ownFeeds.get(spec);
  if (known) return known;
  const feed: Feed = { by: 'volts', volts: spec.normal, declared: spec.normalled ?? false };
  ownFeeds.set(spec, feed);
  return feed;
}

type PlaceInPatch = Pick<WiredModule, 'index' | 'label' | 'bypassed'>;

function wired(m: ModuleDoc, place: PlaceInPatch, bpm: number, given: readonly Hand[]): WiredModule {
  const { index, label, bypassed } = place;
  const shape = shapeOf(m, bpm);
  const { kind, complete, params, inputs, outputs, inputSockets, outputSockets } = shape;
  const known = given.length === 0 ? shape.wired : undefined;
  if (known?.index === index && known.label === label && known.bypassed === bypassed) return known;
  const sockets = { inputs, outputs, inputSockets, outputSockets };
  const base = { index, id: m.id, label, kind, ...sockets, bypassed };
  const tempo = kind.panel?.tempo;
  const byTempo = tempo && complete[tempo.beats] !== null ? tempo.sets : null;
  const turned = byTempo === null ? given : given.filter((h) => nameOf(h.at) !== byTempo);
  const hands = realHands(kind, turned, m.real);
  if (hands.length === 0) {
    const overridden = byTempo === null ? NOTHING : new Set([byTempo]);
    const still = { ...base, params, hands: NO_HANDS, overridden };
    if (given.length === 0) shape.wired = still;
    return still;
  }
  const begin = Object.fromEntries(hands.map((h) => [nameOf(h.at), h.points[0]?.value ?? 0]));
  const names = hands.map((h) => nameOf(h.at));
  return {
    ...base,
    params: withTempo(kind, { ...complete, ...begin }, bpm),
    hands,
    overridden: new Set(byTempo === null ? names : [...names, byTempo]),
  };
}
