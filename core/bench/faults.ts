import { idOf, nameOf, socketAt } from '../document/sockets';
import type { Cable, ModuleDoc, Patch } from '../document/types';
import { completeParams } from '../document/params';
import { applyEdits } from '../edit/edit';
import { freeId } from '../edit/editSequence';
import type { Edit } from '../edit/edit';
import { buildGraph } from '../graph/graph';
import type { Graph, GraphModule } from '../graph/graph';
import { kindNamed } from '../kinds';
import { continuousOf } from '../kinds/knobs';
import type { ParamValue } from '../kinds/params';
import { positionOf, valueAt } from '../units/knob';

/** What can be wrong at a rack, one thing at a time. Sockets and knobs are written whole. */
export type Fault =
  /** Not plugged, or broken: the input has its normal, or nothing. */
  | { readonly kind: 'cableMissing'; readonly cable: Cable }
  /** One end sits in another socket of the same module and direction. */
  | { readonly kind: 'cableElsewhere'; readonly cable: Cable; readonly end: 'from' | 'to'; readonly socket: string }
  /** Their `to` ends are swapped. */
  | { readonly kind: 'cablesSwapped'; readonly cables: readonly [Cable, Cable] }
  | { readonly kind: 'knob'; readonly at: string; readonly value: number }
  | { readonly kind: 'jumper'; readonly at: string; readonly value: ParamValue }
  /** A normal still acts although a cable is plugged there: both are added. */
  | { readonly kind: 'normalActs'; readonly to: string; readonly volts: number }
  | { readonly kind: 'normalActs'; readonly to: string; readonly from: string }
  | { readonly kind: 'normalBroken'; readonly to: string }
  /** Something else hangs on an output, ohms to ground. */
  | { readonly kind: 'load'; readonly at: string; readonly ohms: number }
  /** A source gives `gain · planned + volts`. */
  | { readonly kind: 'sourceRange'; readonly module: string; readonly gain: number; readonly volts: number }
  | { readonly kind: 'dead'; readonly module: string }
  | { readonly kind: 'gain'; readonly at: string; readonly gain: number }
  | { readonly kind: 'offset'; readonly at: string; readonly volts: number };

export type FaultKind = Fault['kind'];

/** What each kind costs against the readings that it explains: what is commoner is cheaper. */
export const PRICES: Readonly<Record<FaultKind, number>> = {
  knob: 1,
  cableElsewhere: 1,
  cableMissing: 1.5,
  cablesSwapped: 1.5,
  jumper: 1.5,
  normalActs: 2.5,
  normalBroken: 2.5,
  sourceRange: 2.5,
  load: 2.5,
  gain: 3,
  offset: 3,
  dead: 3,
};

/** Where the solved values of faults lie. */
export const SPANS = {
  gain: { least: 0.3, most: 1.7, dead: [0.98, 1.02] },
  offset: { least: 0.05, most: 3 },
  load: { least: 100, most: 10_000_000 },
} as const;

const sameCable = (a: Cable, b: Cable): boolean => a.from === b.from && a.to === b.to;

/** Where the plan's cables really are, those that are plugged; a fault of a cable not yet plugged does nothing. */
export function cablesUnder(plugged: readonly Cable[], faults: readonly Fault[]): Cable[] {
  let cables = plugged.map((plan) => ({ plan, now: plan as Cable | null }));
  for (const fault of faults) {
    const change = (of: Cable, to: (now: Cable) => Cable | null): void => {
      cables = cables.map((c) => (sameCable(c.plan, of) && c.now ? { ...c, now: to(c.now) } : c));
    };
    switch (fault.kind) {
      case 'cableMissing':
        change(fault.cable, () => null);
        break;
      case 'cableElsewhere':
        change(fault.cable, (now) => ({ ...now, [fault.end]: fault.socket }));
        break;
      case 'cablesSwapped': {
        const [a, b] = fault.cables;
        change(a, (now) => ({ ...now, to: b.to }));
        change(b, (now) => ({ ...now, to: a.to }));
        break;
      }
      default:
    }
  }
  const now = cables.flatMap((c) => c.now ?? []);
  // An input takes one cable: what was pushed out of the way is out.
  return now.filter((c, i) => !now.slice(i + 1).some((d) => d.to === c.to));
}

/** A setting that stands otherwise; one that only says how far a knob reaches leaves its pointer where it is. */
function jumperEdits(patch: Patch, at: string, value: ParamValue): Edit[] {
  const [module, param] = [idOf(at), nameOf(at)];
  const m = patch.modules.find((x) => x.id === module);
  const kind = m && kindNamed(m.kind);
  if (!kind) return [];
  const before = completeParams(kind, m.params, patch.settings.bpm);
  const after = { ...before, [param]: value };
  const was = new Map(continuousOf(kind, before).map((k) => [k.name, k]));
  const moved = continuousOf(kind, after).flatMap(({ name, min, max, spec }): Edit[] => {
    const old = was.get(name);
    if (!old || name === param || (old.min === min && old.max === max)) return [];
    const share = positionOf({ min: old.min, max: old.max, taper: spec.taper }, Number(before[name]));
    return [{ do: 'set', module, param: name, value: valueAt({ min, max, taper: spec.taper }, share) }];
  });
  return [{ do: 'set', module, param, value }, ...moved];
}

/** What a fault does to the document, its cables aside. */
export function faultEdits(patch: Patch, fault: Fault): Edit[] {
  switch (fault.kind) {
    case 'knob':
      return [{ do: 'set', module: idOf(fault.at), param: nameOf(fault.at), value: fault.value }];
    case 'jumper':
      return jumperEdits(patch, fault.at, fault.value);
    case 'normalBroken':
      return brokenNormal(patch, fault.to);
    case 'normalActs':
      return addedNormal(patch, fault);
    case 'load':
      return loadEdits(patch, fault.at, fault.ohms);
    default:
      return [];
  }
}

/** The parameter of a kind that is the voltage of an input's own normal; null where it has none to set. */
function normalParam(m: GraphModule, socket: string): string | null {
  const input = m.inputs.find((s) => s.socket === socket);
  if (!input) return null;
  return (
    Object.keys(m.kind.params).find((name) => name === 'normalVolts' && m.params[name] === input.spec.normal) ?? null
  );
}

/** A normal that is gone: 0 V, as with nothing plugged in. */
function brokenNormal(patch: Patch, to: string): Edit[] {
  const m = buildGraph(patch).modules.find((x) => x.id === idOf(to));
  const param = m ? normalParam(m, to) : null;
  const own: Edit[] = param === null ? [{ do: 'normal', to, normal: { to, volts: 0 } }] : [];
  return [
    { do: 'normal', to, normal: null },
    ...(param === null ? own : [{ do: 'set', module: idOf(to), param, value: 0 } as const]),
  ];
}

/** Something that adds two voltages without loading either, put in the way of a cable. */
function addedNormal(patch: Patch, fault: Extract<Fault, { kind: 'normalActs' }>): Edit[] {
  const { to } = fault;
  const cable = buildGraph(patch).wiring.cableInto(to);
  if (!cable) return [];
  const into = patch.modules.find((m) => m.id === idOf(to));
  const ohms = into?.inputOhms?.[nameOf(to)];
  const sum: ModuleDoc = {
    id: freeId(patch, 'sum'),
    kind: 'mixer',
    params: { inputs: 2, gain1: 1, gain2: 1 },
    inputOhms: { ...(ohms !== undefined && { in1: ohms }), in2: 10_000_000 },
  };
  const edits: Edit[] = [
    { do: 'add', module: sum },
    { do: 'plug', cable: { from: cable.from, to: socketAt(sum.id, 'in1') } },
    { do: 'plug', cable: { from: socketAt(sum.id, 'out'), to } },
  ];
  if ('volts' in fault)
    return [
      ...edits,
      { do: 'normal', to: socketAt(sum.id, 'in2'), normal: { to: socketAt(sum.id, 'in2'), volts: fault.volts } },
    ];
  return [...edits, { do: 'plug', cable: { from: fault.from, to: socketAt(sum.id, 'in2') } }];
}

function loadEdits(patch: Patch, at: string, ohms: number): Edit[] {
  const module: ModuleDoc = { id: freeId(patch, 'load'), kind: 'offset', inputOhms: { in: ohms } };
  return [
    { do: 'add', module },
    { do: 'plug', cable: { from: at, to: socketAt(module.id, 'in') } },
  ];
}

/** What a fault does to the voltage of an output before its rails and loads; null where nothing. */
function outputError(
  m: GraphModule,
  name: string,
  socket: string,
  fault: Fault,
): { readonly gain: number; readonly offset: number } | null {
  const isInverted = m.kind.negated?.[name] !== undefined;
  switch (fault.kind) {
    case 'dead':
      return fault.module === m.id ? { gain: 0, offset: 0 } : null;
    case 'gain':
      return fault.at === socket ? { gain: fault.gain, offset: 0 } : null;
    case 'offset':
      return fault.at === socket ? { gain: 1, offset: fault.volts } : null;
    case 'sourceRange': {
      if (fault.module !== m.id || m.kind.timing?.gates?.includes(name)) return null;
      return { gain: fault.gain, offset: isInverted ? -fault.volts : fault.volts };
    }
    default:
      return null;
  }
}

const OUTPUT_FAULTS: ReadonlySet<FaultKind> = new Set(['dead', 'gain', 'offset', 'sourceRange']);
const isAtOutput = (fault: Fault): boolean => OUTPUT_FAULTS.has(fault.kind);

/** A patch with faults in it, as it is plugged: the graph that is run. @param build how a patch becomes one. */
export function faultyGraph(
  patch: Patch,
  plugged: readonly Cable[],
  faults: readonly Fault[],
  knobs: readonly Edit[],
  build: (patch: Patch) => Graph = buildGraph,
): Graph {
  const placed: Patch = { ...patch, cables: cablesUnder(plugged, faults) };
  const edited = faults.reduce<Patch>((p, fault) => applyEdits(p, faultEdits(p, fault)), placed);
  return withOutputFaults(build(applyEdits(edited, knobs)), faults);
}

/** The same of a graph that is there already, where nothing but outputs is off; null where more is. */
export const faultyOutputs = (graph: Graph, faults: readonly Fault[]): Graph | null =>
  faults.every(isAtOutput) ? withOutputFaults(graph, faults) : null;

function withOutputFaults(graph: Graph, faults: readonly Fault[]): Graph {
  const errors = faults.filter(isAtOutput);
  if (errors.length === 0) return graph;
  const modules = graph.modules.map((m) => ({
    ...m,
    outputs: m.outputs.map((o) => {
      const off = errors.flatMap((f) => outputError(m, o.name, o.socket, f) ?? []);
      if (off.length === 0) return o;
      return off.reduce(
        (now, e) => ({ ...now, gain: (now.gain ?? 1) * e.gain, offset: (now.offset ?? 0) * e.gain + e.offset }),
        o,
      );
    }),
  }));
  return { ...graph, modules };
}

/** What no document says: two voltages at one input, a load that is no module. */
const UNSAID: ReadonlySet<FaultKind> = new Set(['normalActs', 'load']);

/** Edits that make the plan what a fault makes of it; none where no document can say it. */
export function editsOf(patch: Patch, fault: Fault): Edit[] {
  const { cables } = buildGraph(patch).wiring;
  const now = cablesUnder(cables, [fault]);
  const gone = cables.filter((c) => !now.some((n) => sameCable(n, c)));
  const come = now.filter((c) => !cables.some((n) => sameCable(n, c)));
  return [
    ...gone.map(({ to }): Edit => ({ do: 'unplug', to })),
    ...come.map((cable): Edit => ({ do: 'plug', cable })),
    ...(UNSAID.has(fault.kind) ? [] : faultEdits(patch, fault)),
  ];
}
