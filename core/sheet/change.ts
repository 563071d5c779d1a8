import { placeName } from '../document/names';
import { completeParams } from '../document/params';
import { channelTitle } from '../document/rackTypes';
import type { Rack } from '../document/rackTypes';
import { idOf, nameOf, socketAt } from '../document/sockets';
import type { Cable, ModuleDoc, Patch } from '../document/types';
import { applyEdits } from '../edit/edit';
import { buildGraph } from '../graph/graph';
import type { Graph, GraphModule } from '../graph/graph';
import { kindNamed } from '../kinds';
import { assignRack } from '../plan/assign';
import { channelLimits } from '../rack/limits';
import type { ChannelLimits } from '../rack/limits';
import { expectAt, pluggedSoFar } from './expect';
import type { Asset } from './expect';
import { actId } from './order';
import { knobSteps, setText, setupSteps } from './settings';
import { USUAL_METER } from './types';
import type { MeterSpec, SheetStep } from './types';

/** A step of a change: as on a sheet, or a cable that is pulled. */
export type ChangeStep =
  | SheetStep
  | {
      readonly id: string;
      readonly part: string;
      readonly text: string;
      readonly do: 'unplug';
      readonly cable: Cable;
    };

export interface Change {
  readonly format: 'fenvo.change';
  readonly version: 1;
  readonly from: string;
  readonly to: string;
  readonly steps: readonly ChangeStep[];
}

export interface ChangeOptions {
  readonly rack?: Rack;
  readonly meter?: MeterSpec;
  readonly asset?: Asset;
}

const NO_CHANNELS: ChannelLimits = { limits: new Map(), choices: new Map(), panels: new Map(), spreads: new Map() };

/** A patch as it sits on a rack. */
const seated = (patch: Patch, rack: Rack | undefined): Patch =>
  rack
    ? applyEdits(
        patch,
        assignRack(patch, rack).assigned.flatMap((a) => a.edits),
      )
    : patch;

/** The modules of b that are modules of a: on the same channel, else of the same id and kind. */
function sameModules(a: Patch, b: Patch): ReadonlyMap<string, ModuleDoc> {
  const onChannel = new Map(a.modules.flatMap((m) => (m.rack === undefined ? [] : [[m.rack, m] as const])));
  const byId = new Map(a.modules.map((m) => [m.id, m]));
  return new Map(
    b.modules.flatMap((m) => {
      const there = m.rack === undefined ? undefined : onChannel.get(m.rack);
      const named = byId.get(m.id);
      const same =
        there ?? (named?.kind === m.kind && (named.rack === undefined || m.rack === undefined) ? named : undefined);
      return same ? [[m.id, same] as const] : [];
    }),
  );
}

/** Writes the steps from one patch to another. */
class ChangeWriter {
  private readonly graphs: { readonly a: Graph; readonly b: Graph };
  private readonly same: ReadonlyMap<string, ModuleDoc>;
  /** Ids of b by those of a. */
  private readonly back: ReadonlyMap<string, string>;
  private readonly channels: { readonly a: ChannelLimits; readonly b: ChannelLimits };
  /** What is plugged by now, as b names it. */
  private plugged: Cable[];
  private readonly set = new Set<string>();

  constructor(
    private readonly a: Patch,
    private readonly b: Patch,
    private readonly options: ChangeOptions,
  ) {
    const { rack } = options;
    this.graphs = { a: buildGraph(a), b: buildGraph(b) };
    this.same = sameModules(a, b);
    this.back = new Map([...this.same].map(([id, m]) => [m.id, id]));
    this.channels = rack
      ? { a: channelLimits(a, rack), b: channelLimits(b, rack) }
      : { a: NO_CHANNELS, b: NO_CHANNELS };
    this.plugged = this.kept.map(({ there }) => there);
  }

  /** A cable of a as b would name it; null where one of its ends is on a module that only a has. */
  private inB({ from, to }: Cable): Cable | null {
    const [f, t] = [this.back.get(idOf(from)), this.back.get(idOf(to))];
    return f === undefined || t === undefined ? null : { from: socketAt(f, nameOf(from)), to: socketAt(t, nameOf(to)) };
  }

  private has(cable: Cable | null): boolean {
    return cable !== null && this.graphs.b.wiring.cables.some((c) => c.from === cable.from && c.to === cable.to);
  }

  private get kept(): { readonly here: Cable; readonly there: Cable }[] {
    return this.graphs.a.wiring.cables.flatMap((here) => {
      const there = this.inB(here);
      return there && this.has(there) ? [{ here, there }] : [];
    });
  }

  /** The patch as it stands at the rack by now: knobs that were not set yet are where a had them. */
  private standing(): Patch {
    const modules = this.b.modules.map((m) => {
      const old = this.same.get(m.id);
      return old && !this.set.has(m.id) && old.kind === m.kind ? { ...m, params: old.params ?? {} } : m;
    });
    return pluggedSoFar({ ...this.b, modules }, this.plugged);
  }

  steps(): ChangeStep[] {
    const gone = this.graphs.a.wiring.cables.filter((c) => !this.has(this.inB(c)));
    const come = this.graphs.b.wiring.cables.filter(
      (c) => !this.plugged.some((p) => p.from === c.from && p.to === c.to),
    );
    const changed = this.ordered().flatMap((m) => this.ofModule(m, come));
    const moves = gone.length + come.length > 0 && [this.graphs.a, this.graphs.b].some(soundsOut);
    const note = (id: string, part: string, text: string): ChangeStep => ({ id, part, do: 'note', text });
    return [
      ...(moves
        ? [note('note-levels-down', 'start', `Turn down everything that ${outletsOf(this.graphs)} feeds.`)]
        : []),
      ...gone.map((cable) => this.unplug(cable)),
      ...changed,
      ...(moves
        ? [note('note-levels-up', 'last', `Slowly turn up everything that ${outletsOf(this.graphs)} feeds.`)]
        : []),
    ];
  }

  /** The modules of b, each behind what drives it. */
  private ordered(): GraphModule[] {
    const { groups, modules } = this.graphs.b;
    return groups.flatMap((g) => g.modules.flatMap((i) => modules[i] ?? []));
  }

  private unplug(cable: Cable): ChangeStep {
    const { modules } = this.graphs.a;
    return {
      id: `unplug-${cable.from}-${cable.to}`,
      part: 'start',
      do: 'unplug',
      text: `Unplug ${placeName(modules, cable.from)} → ${placeName(modules, cable.to)}`,
      cable,
    };
  }

  /** What is set, plugged and measured of one module. */
  private ofModule(m: GraphModule, come: readonly Cable[]): ChangeStep[] {
    const part = `path ${m.inputs[0]?.socket ?? m.outputs[0]?.socket ?? m.id}`;
    const settings = this.settings(m, part);
    this.set.add(m.id);
    const into = come.filter((c) => idOf(c.to) === m.id).map((cable) => this.plug(cable, part));
    const steps = [...settings, ...into];
    return steps.length > 0 ? [...steps, ...this.measures(m, part)] : steps;
  }

  /** What of its settings differs; all of a module that only b has. */
  private settings(m: GraphModule, part: string): ChangeStep[] {
    const doc = this.b.modules[m.index];
    const old = this.same.get(m.id);
    const kind = kindNamed(m.kind.name);
    if (!kind || !doc || Object.keys(kind.params).length === 0) return [];
    const knobsOf = (params: ModuleDoc['params'], bpm: number, id: string, channels: ChannelLimits) => {
      const complete = completeParams(kind, params, bpm);
      const knobs = knobSteps(id, kind, complete, channels);
      return { knobs, setup: setupSteps(kind, complete, knobs) };
    };
    const now = knobsOf(doc.params, this.b.settings.bpm, m.id, this.channels.b);
    const before =
      old?.kind === doc.kind
        ? knobsOf(old.params, this.a.settings.bpm, old.id, this.channels.a)
        : { knobs: [], setup: [] };
    const isNew = <T extends { readonly param: string; readonly value: unknown }>(x: T, list: readonly T[]): boolean =>
      !list.some((y) => y.param === x.param && JSON.stringify(y.value) === JSON.stringify(x.value));
    const knobs = now.knobs.filter((k) => isNew(k, before.knobs));
    const setup = now.setup.filter((s) => isNew(s, before.setup));
    if (knobs.length + setup.length === 0) return [];
    return [
      {
        id: actId({ do: 'set', module: m.id, part }),
        part,
        do: 'set',
        text: setText(m.label, kind, knobs, setup, old !== undefined),
        module: m.id,
        rack: doc.rack ?? null,
        channel: doc.rack === undefined ? null : channelTitle(this.options.rack, doc.rack),
        knobs,
        setup,
      },
    ];
  }

  private plug(cable: Cable, part: string): ChangeStep {
    const { modules, wiring } = this.graphs.b;
    const split = this.plugged.some((c) => c.from === cable.from);
    this.plugged = [...this.plugged, cable];
    const text = `Patch ${placeName(modules, cable.from)} → ${placeName(modules, cable.to)}${split ? ', using a stackable cable or a mult' : ''}`;
    return {
      id: actId({ do: 'plug', cable, part }),
      part,
      do: 'plug',
      text,
      cable,
      breaks: wiring.brokenBy(cable),
      split,
    };
  }

  /** Its outputs that something is driven by, as they must read now. */
  private measures(m: GraphModule, part: string): ChangeStep[] {
    const { wiring, groups, modules } = this.graphs.b;
    const isLooped = groups.some((g) => g.loop && g.modules.includes(m.index));
    if (isLooped || m.kind.sound?.outlet) return [];
    const used = m.outputs.filter((o) => wiring.cablesFrom(o.socket).length > 0);
    return used.map(({ socket }): ChangeStep => {
      const { meter = USUAL_METER, asset } = this.options;
      const expect = expectAt(this.standing(), socket, meter, this.channels.b, asset);
      const text = `Measure ${placeName(modules, socket)}`;
      return { id: actId({ do: 'measure', socket, part }), part, do: 'measure', text, expect };
    });
  }
}

const outlets = ({ modules }: Graph): readonly GraphModule[] =>
  modules.filter((m) => m.kind.sound?.outlet && m.inputs.some((s) => s.plugged));
const soundsOut = (graph: Graph): boolean => outlets(graph).length > 0;
const outletsOf = ({ a, b }: { readonly a: Graph; readonly b: Graph }): string =>
  [...new Set([...outlets(a), ...outlets(b)].map((m) => m.label))].join(' and ');

/**
 * The steps from one patch to another on the same rack: levels down, cables out, then stage by stage what is set,
 * plugged and measured, levels up. Cables in both stay. Pure.
 */
export function changeOf(a: Patch, b: Patch, options: ChangeOptions = {}): Change {
  const [from, to] = [seated(a, options.rack), seated(b, options.rack)];
  return {
    format: 'fenvo.change',
    version: 1,
    from: a.name,
    to: b.name,
    steps: new ChangeWriter(from, to, options).steps(),
  };
}
