import { channelTitle } from '../document/rackTypes';
import { placeName } from '../document/names';
import { BoundsEngine } from '../bounds/bounds';
import { completeParams } from '../document/params';
import { idOf } from '../document/sockets';
import type { Rack } from '../document/rackTypes';
import type { Cable, ModuleDoc, Patch } from '../document/types';
import { applyEdits } from '../edit/edit';
import { buildGraph } from '../graph/graph';
import type { Graph } from '../graph/graph';
import { kindNamed } from '../kinds';
import { assignRack } from '../plan/assign';
import type { Assignment } from '../plan/assign';
import { asMeasured } from '../rack/asMeasured';
import { channelLimits } from '../rack/limits';
import type { ChannelLimits } from '../rack/limits';
import { cautionsOf } from './cautions';
import { earOf } from './ear';
import { expectAt, pluggedSoFar, readingAt } from './expect';
import type { Asset } from './expect';
import { actId, Order } from './order';
import type { Act } from './order';
import { inSentence, paramLabel } from '../kinds/knobs';
import { knobSteps, setupSteps, setText } from './settings';
import { NO_OUTPUT, USUAL_METER } from './types';
import type { MeterSpec, Sheet, SheetNeeds, SheetStep } from './types';

export interface SheetOptions {
  readonly rack?: Rack;
  /** What plays what; left out: as the rack would be assigned. */
  readonly assignment?: Assignment;
  readonly meter?: MeterSpec;
  /** What is expected is that of the rack's modules as they were measured; knobs stand where their pointers say. */
  readonly asMeasured?: boolean;
  readonly asset?: Asset;
  /** Called now and then with the progress, 0..1. */
  readonly progress?: (share: number) => void;
}

/** The patch as it stands on its channels, with what is short. */
function onRack(patch: Patch, { rack, assignment }: SheetOptions): { patch: Patch; assignment: Assignment | null } {
  const found = assignment ?? (rack ? assignRack(patch, rack) : null);
  if (!found) return { patch, assignment: null };
  return {
    patch: applyEdits(
      patch,
      found.assigned.flatMap((a) => a.edits),
    ),
    assignment: found,
  };
}

type ChannelName = (module: ModuleDoc | undefined) => string | null;

function needsOf({ patch, modules, wiring }: Graph, assignment: Assignment | null, channel: ChannelName): SheetNeeds {
  const stands = new Map(assignment?.assigned.map((a) => [a.module, a.standIn]));
  const ways = new Map<string, number>();
  for (const { from } of wiring.cables) ways.set(from, (ways.get(from) ?? 0) + 1);
  const used = modules.filter((m) => !m.bypassed);
  return {
    modules: used.map((m) => ({
      module: m.id,
      label: m.label,
      kind: m.kind.name,
      rack: patch.modules[m.index]?.rack ?? null,
      channel: channel(patch.modules[m.index]),
      standIn: stands.get(m.id) ?? null,
    })),
    cables: wiring.cables.length,
    splits: [...ways].filter(([, n]) => n > 1).map(([at, n]) => ({ at, ways: n })),
    short: assignment?.short.map(({ module: id, kind, why }) => ({ module: id, kind, why })) ?? [],
  };
}

/** Writes acts as steps, each of the patch as it is patched by then. */
class StepWriter {
  private readonly plugged: Cable[] = [];
  private readonly used = new Set<string>();

  constructor(
    private readonly graph: Graph,
    private readonly channels: ChannelLimits,
    private readonly meter: MeterSpec,
    private readonly channel: ChannelName,
    private readonly asset: Asset,
  ) {}

  private get patch(): Patch {
    return pluggedSoFar(this.graph.patch, [...this.plugged]);
  }

  private name(id: string): string {
    return this.graph.modules.find((m) => m.id === id)?.label ?? id;
  }

  private place(socket: string): string {
    return placeName(this.graph.modules, socket);
  }

  stepsOf(act: Act): SheetStep[] {
    switch (act.do) {
      case 'set':
        return [this.set(actId(act), act.module, act.part)];
      case 'plug':
        return [this.plug(actId(act), act.cable, act.part)];
      case 'measure': {
        const expect = expectAt(this.patch, act.socket, this.meter, this.channels, this.asset);
        const text = `Measure ${this.place(act.socket)}`;
        return [{ id: actId(act), part: act.part, do: 'measure', text, expect }];
      }
      case 'listen':
        return this.listen(actId(act), act.end, act.part);
    }
  }

  private set(step: string, id: string, part: string): SheetStep {
    const { patch } = this.graph;
    const doc = patch.modules.find((m) => m.id === id);
    const kind = kindNamed(doc?.kind ?? '');
    const params = kind ? completeParams(kind, doc?.params, patch.settings.bpm) : {};
    const knobs = kind ? knobSteps(id, kind, params, this.channels) : [];
    const setup = kind ? setupSteps(kind, params, knobs) : [];
    const text = kind ? setText(this.name(id), kind, knobs, setup) : this.name(id);
    return {
      id: step,
      part,
      do: 'set',
      text,
      module: id,
      rack: doc?.rack ?? null,
      channel: this.channel(doc),
      knobs,
      setup,
    };
  }

  private plug(step: string, cable: Cable, part: string): SheetStep {
    const split = this.used.has(cable.from);
    const breaks = this.graph.wiring.brokenBy(cable);
    this.used.add(cable.from);
    this.plugged.push(cable);
    const loses = breaks
      .map((b) => ('volts' in b ? `its ${b.volts} V normal` : `its normal from ${this.place(b.from)}`))
      .join(' and ');
    const text = `Patch ${this.place(cable.from)} → ${this.place(cable.to)}${split ? ', using a stackable cable or a mult' : ''}${loses ? `. This breaks ${loses}.` : ''}`;
    return { id: step, part, do: 'plug', text, cable, breaks, split };
  }

  private listen(step: string, end: string, part: string): SheetStep[] {
    const found = readingAt(this.patch, end, this.asset);
    if (!found) return [];
    const { reading, period } = found;
    const audible = this.graph.modules.find((m) => m.id === idOf(end))?.kind.sound?.audible === true;
    const ear = earOf(reading, audible, period);
    const expect = {
      at: end,
      ear,
      low: reading.arrivesLow,
      high: reading.arrivesHigh,
      unit: reading.unit,
    };
    return [{ id: step, part, do: 'listen', text: `Listen (or measure) at ${this.place(end)}: ${ear}`, expect }];
  }
}

/** What is done before anything and after everything, where something is heard. */
function aroundSound(graph: Graph): { readonly start: readonly SheetStep[]; readonly last: readonly SheetStep[] } {
  const outlets = graph.modules.filter((m) => m.kind.sound?.outlet);
  if (outlets.length === 0 && !graph.modules.some((m) => m.kind.sound?.audible)) return { start: [], last: [] };
  const howling = graph.modules.flatMap((m) => (m.kind.panel?.howls ?? []).map((param) => ({ m, param })));
  const names = outlets.map((m) => m.label).join(' and ');
  return {
    start: [
      ...(outlets.length > 0
        ? [
            {
              id: 'note-levels-down',
              part: 'start',
              do: 'note' as const,
              text: `Turn down everything ${names} feeds: mixer, interface or speakers.`,
            },
          ]
        : []),
      ...howling.map(({ m, param }): SheetStep => ({
        id: `note-${m.id}.${param}-down`,
        part: 'start',
        do: 'note',
        text: `${m.label}: turn ${inSentence(paramLabel(param, m.kind.params[param]))} fully down. You’ll set it later.`,
      })),
    ],
    last: [
      outlets.length > 0
        ? {
            id: 'note-levels-up',
            part: 'last',
            do: 'note',
            text: `Slowly turn up everything ${names} feeds, and listen.`,
          }
        : {
            id: NO_OUTPUT,
            part: 'last',
            do: 'note',
            text: 'The sound goes nowhere yet: no line output is patched. Add an output to the patch to hear it.',
          },
    ],
  };
}

/**
 * A patch as steps at the rack, in an order that can be checked as it grows, each with what must be read there. Pure.
 *
 * @returns readings of the patch as it is plugged up to each step, volts, each with what it may be off by.
 */
export function sheetOf(given: Patch, options: SheetOptions = {}): Sheet {
  const { patch: seated, assignment } = onRack(given, options);
  const patch = options.rack && options.asMeasured ? asMeasured(seated, options.rack) : seated;
  const graph = buildGraph(patch);
  const channels = options.rack
    ? channelLimits(patch, options.rack)
    : { limits: new Map(), choices: new Map(), panels: new Map(), spreads: new Map() };
  const channel: ChannelName = (m) => (m?.rack === undefined ? null : channelTitle(options.rack, m.rack));
  const writer = new StepWriter(graph, channels, options.meter ?? USUAL_METER, channel, options.asset);
  const acts = new Order(graph).run();
  const told = acts.flatMap((act, i) => {
    options.progress?.(i / acts.length);
    return writer.stepsOf(act);
  });
  const { start, last } = aroundSound(graph);
  return {
    format: 'fenvo.sheet',
    version: 1,
    patch: patch.name,
    rack: options.rack?.name ?? null,
    needs: needsOf(graph, assignment, channel),
    cautions: cautionsOf(graph, new BoundsEngine().run(graph)),
    steps: [...start, ...told, ...last],
  };
}
