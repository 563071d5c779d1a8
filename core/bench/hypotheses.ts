import { idOf, socketAt } from '../document/sockets';
import type { Cable, Patch } from '../document/types';
import { knobsIn } from '../document/knobs';
import { BoundsEngine } from '../bounds/bounds';
import { buildGraph } from '../graph/graph';
import type { Graph, GraphModule } from '../graph/graph';
import { sourceOhmsAt } from '../graph/loading';
import type { ParamValue } from '../kinds/params';
import type { ChannelLimits } from '../rack/limits';
import { positionOf, valueAt } from '../units/knob';
import type { Fault } from './faults';
import { SPANS } from './faults';

/** A fault that may be there; one with a value to be solved for says where that lies. */
export type Hypothesis =
  | { readonly is: 'fixed'; readonly fault: Fault }
  | {
      readonly is: 'solved';
      /** Where it would be planned, 0..1. */
      readonly planned: number;
      /** The fault at a position 0..1 of what its value can be; null where that would be no fault. */
      at(position: number): Fault | null;
    };

const fixed = (fault: Fault): Hypothesis => ({ is: 'fixed', fault });
const sameParts = (a: string, b: string): boolean => idOf(a) === idOf(b);

/** What can be wrong with the cables: each out, in another socket, or swapped with one beside it. */
function cableFaults({ modules, wiring: { cables } }: Graph): Hypothesis[] {
  const byId = new Map(modules.map((m) => [m.id, m]));
  const taken = new Set(cables.map((c) => c.to));
  const elsewhere = cables.flatMap((cable): Fault[] => [
    ...(byId.get(idOf(cable.from))?.outputs ?? [])
      .filter((o) => o.socket !== cable.from)
      .map(({ socket }): Fault => ({ kind: 'cableElsewhere', cable, end: 'from', socket })),
    ...(byId.get(idOf(cable.to))?.inputs ?? [])
      .filter((s) => !taken.has(s.socket))
      .map(({ socket }): Fault => ({ kind: 'cableElsewhere', cable, end: 'to', socket })),
  ]);
  const swapped = cables.flatMap((a, i) =>
    cables.slice(i + 1).flatMap((b: Cable): Fault[] => {
      const beside = sameParts(a.to, b.to) || sameParts(a.from, b.from);
      return beside && a.from !== b.from ? [{ kind: 'cablesSwapped', cables: [a, b] }] : [];
    }),
  );
  return [...cables.map((cable): Fault => ({ kind: 'cableMissing', cable })), ...elsewhere, ...swapped].map(fixed);
}

/** Settings that are no hand knobs and have choices; with a rack, only what its channel allows. */
function jumperFaults({ modules }: Graph, channels: ChannelLimits | null): Hypothesis[] {
  return modules.flatMap((m) => {
    const hands = new Set(knobsIn({ id: m.id, kind: m.kind.name, params: m.params }).map((k) => k.name));
    return Object.entries(m.kind.params).flatMap(([param, spec]): Hypothesis[] => {
      if (hands.has(param) || !(spec.exists?.(m.params) ?? true)) return [];
      const own: readonly ParamValue[] =
        spec.type === 'choice' ? spec.options : spec.type === 'flag' ? [true, false] : [];
      const at = socketAt(m.id, param);
      const there = channels?.choices.get(at) ?? (channels && isSeated(channels, m) ? [] : own);
      return there.filter((value) => value !== m.params[param]).map((value) => fixed({ kind: 'jumper', at, value }));
    });
  });
}

const isSeated = (channels: ChannelLimits, m: GraphModule): boolean =>
  [...channels.limits.keys(), ...channels.choices.keys()].some((at) => idOf(at) === m.id);

/** Hand knobs that stand elsewhere; those that automation turns are not a hand's. */
function knobFaults({ modules }: Graph, patch: Patch, channels: ChannelLimits | null): Hypothesis[] {
  return patch.modules.flatMap((doc, i) => {
    const m = modules[i];
    return knobsIn(doc, patch.settings.bpm)
      .filter((k) => !m?.overridden.has(k.name))
      .map(({ at, min, max, value, spec }): Hypothesis => {
        const [low, high] = channels?.limits.get(at) ?? [min, max];
        const travel = { min: low, max: high, taper: spec.taper };
        return {
          is: 'solved',
          planned: positionOf(travel, value),
          at(position) {
            const there = spec.whole ? Math.round(valueAt(travel, position)) : valueAt(travel, position);
            return there === value ? null : { kind: 'knob', at, value: there };
          },
        };
      });
  });
}

/** Normals that act although a cable is there, and those that are gone. */
function normalFaults({ modules, wiring }: Graph): Hypothesis[] {
  return modules.flatMap((m) =>
    m.inputs.flatMap((s): Hypothesis[] => {
      const normal = wiring.normalOf(s.socket);
      if (s.plugged) {
        if (normal && 'from' in normal) return [fixed({ kind: 'normalActs', to: s.socket, from: normal.from })];
        const volts = normal ? normal.volts : s.spec.normal;
        return volts === 0 ? [] : [fixed({ kind: 'normalActs', to: s.socket, volts })];
      }
      const feed = wiring.feed(s.socket);
      const acts = feed.by === 'volts' ? feed.volts !== 0 : true;
      return acts ? [fixed({ kind: 'normalBroken', to: s.socket })] : [];
    }),
  );
}

const between = (low: number, high: number, position: number): number => low + position * (high - low);

/** Outputs that something else hangs on, or whose gain or offset is off. */
function outputFaults(graph: Graph): Hypothesis[] {
  return graph.modules.flatMap((m) =>
    m.outputs.flatMap(({ socket }): Hypothesis[] => {
      const { gain, offset, load } = SPANS;
      const isSoft = graph.wiring.cablesFrom(socket).some((c) => sourceOhmsAt(graph, c.to) > 0);
      return [
        {
          is: 'solved',
          planned: (1 - gain.least) / (gain.most - gain.least),
          at(position) {
            const g = between(gain.least, gain.most, position);
            return g > gain.dead[0] && g < gain.dead[1] ? null : { kind: 'gain', at: socket, gain: g };
          },
        },
        {
          is: 'solved',
          planned: 0.5,
          at(position) {
            const volts = between(-offset.most, offset.most, position);
            return Math.abs(volts) < offset.least ? null : { kind: 'offset', at: socket, volts };
          },
        },
        ...(isSoft
          ? [
              {
                is: 'solved',
                planned: 1,
                at: (position: number): Fault => ({
                  kind: 'load',
                  at: socket,
                  ohms: load.least * (load.most / load.least) ** position,
                }),
              } as const,
            ]
          : []),
      ];
    }),
  );
}

/** Sources of another range, by the common pairs: unipolar for bipolar and back, half, double. */
function sourceFaults(graph: Graph): Hypothesis[] {
  const bounds = new BoundsEngine().run(graph);
  return graph.modules.flatMap((m) => {
    if (m.kind.category !== 'source') return [];
    const main = m.outputs.findIndex((o) => !m.kind.timing?.gates?.includes(o.name));
    const [low, high] = bounds.get(m.id)?.outputs[main] ?? [0, 0];
    if (main < 0 || low === high) return [];
    const common: readonly (readonly [number, number])[] =
      low < 0 && high > 0
        ? [
            [0.5, high / 2],
            [1, high],
          ]
        : [
            [2, -high],
            [1, -high / 2],
          ];
    return [...common, [0.5, 0] as const, [2, 0] as const].map(([gain, volts]) =>
      fixed({ kind: 'sourceRange', module: m.id, gain, volts }),
    );
  });
}

/** All single faults that a patch can have. */
export function hypothesesOf(patch: Patch, channels: ChannelLimits | null): Hypothesis[] {
  const graph = buildGraph(patch);
  const dead = graph.modules.filter((m) => m.outputs.length > 0 && !m.bypassed);
  return [
    ...cableFaults(graph),
    ...knobFaults(graph, patch, channels),
    ...jumperFaults(graph, channels),
    ...normalFaults(graph),
    ...outputFaults(graph),
    ...sourceFaults(graph),
    ...dead.map((m) => fixed({ kind: 'dead', module: m.id })),
  ];
}

/** Where in a patch a fault acts: the sockets and modules from which what is read differs. */
export function touchedBy(fault: Fault): readonly string[] {
  switch (fault.kind) {
    case 'cableMissing':
      return [fault.cable.from, fault.cable.to];
    case 'cableElsewhere':
      return [fault.cable.from, fault.cable.to, fault.socket];
    case 'cablesSwapped':
      return fault.cables.flatMap((c) => [c.from, c.to]);
    case 'knob':
    case 'jumper':
      return [idOf(fault.at)];
    case 'normalActs':
    case 'normalBroken':
      return [fault.to];
    case 'load':
    case 'gain':
    case 'offset':
      return [idOf(fault.at)];
    case 'sourceRange':
    case 'dead':
      return [fault.module];
  }
}
