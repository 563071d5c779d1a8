import { outputError } from '../document/real';
import { idOf, nameOf } from '../document/sockets';
import type { Patch } from '../document/types';
import type { InputSpec, Loading } from '../kinds/kind';
import type { Range } from '../law/affine';
import { loadingOf } from './loading';
import { loadSpread } from './loadSpread';
import { arrange } from './order';
import type { Edge, Group } from './order';
import { AUDIO_RATE, CONTROL_RATE, needsAudio } from './rate';
import { Wiring } from './wiring';
import type { WiredModule } from './wiring';

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
  /** How far that goes while hands turn passive pots; left out where none does. */
  readonly factors?: Range;
  /** What its own gain is off by, before the rails; 1 unless a tolerance is asked for. */
  readonly gain?: number;
  /** What it is off by, volts, likewise. */
  readonly offset?: number;
}

/** A module with what drives its inputs and what loads its outputs. */
export interface GraphModule extends Omit<WiredModule, 'inputs' | 'outputs' | 'inputSockets' | 'outputSockets'> {
  readonly inputs: readonly GraphInput[];
  readonly outputs: readonly GraphOutput[];
  readonly loading: Loading;
}

export interface Graph {
  readonly patch: Patch;
  readonly wiring: Wiring;
  readonly modules: readonly GraphModule[];
  readonly groups: readonly Group<Edge>[];
  readonly sampleRate: number;
}

/** A patch that passed `parsePatch`, with every default, normal, loop and load worked out. */
export function buildGraph(patch: Patch): Graph {
  const wiring = new Wiring(patch);
  const edges = wiring.modules.flatMap((m) => m.inputSockets.flatMap((socket) => edgeInto(wiring, m, socket)));
  const groups = arrange(
    wiring.modules.map((m) => m.index),
    edges,
  );
  const delayed = new Set(groups.flatMap((g) => g.delayed.map((e) => e.socket)));
  const loads = loadingOf(patch, wiring);
  const spread = loadSpread(patch, wiring, loads);
  const modules = wiring.modules.map((m): GraphModule => {
    const inputs = m.inputs.map((spec, i) => inputOf(wiring, m.inputSockets[i] ?? '', spec, delayed));
    const outputs = m.outputs.map((name, i) => {
      const socket = m.outputSockets[i] ?? '';
      const off = outputError(m.kind, name, i, patch.modules[m.index]?.real);
      return { name, socket, factor: loads.factor(socket), ...spread?.factor(socket), ...off };
    });
    const { index, id, label, kind, params, hands, overridden, bypassed } = m;
    const loading = { ...loads.of(id), ...spread?.of(id) };
    return { index, id, label, kind, params, hands, overridden, bypassed, inputs, outputs, loading };
  });
  return { patch, wiring, modules, groups, sampleRate: sampleRateOf(patch, wiring.modules) };
}

interface InputEdge extends Edge {
  readonly socket: string;
}

function edgeInto(wiring: Wiring, { index }: WiredModule, socket: string): InputEdge[] {
  const feed = wiring.feed(socket);
  const from = feed.by === 'volts' ? undefined : wiring.module(idOf(feed.from));
  return from ? [{ from: from.index, to: index, socket }] : [];
}

function inputOf(wiring: Wiring, socket: string, spec: InputSpec, delayed: ReadonlySet<string>): GraphInput {
  const feed = wiring.feed(socket);
  const plugged = wiring.cableInto(socket) !== undefined;
  if (feed.by === 'volts')
    return { spec, socket, plugged, connected: feed.declared, driver: { type: 'volts', volts: feed.volts } };
  const from = wiring.module(idOf(feed.from));
  const output = from?.outputs.indexOf(nameOf(feed.from)) ?? -1;
  const driver = { type: 'output', module: from?.index ?? -1, output, delayed: delayed.has(socket) } as const;
  return { spec, socket, plugged, connected: true, driver };
}

function sampleRateOf({ settings }: Patch, modules: readonly WiredModule[]): number {
  if (settings.sampleRate !== 'auto') return settings.sampleRate;
  return modules.some(needsAudio) ? AUDIO_RATE : CONTROL_RATE;
}

/** The ids of modules that drive another. */
export const feedingModules = ({ modules }: Graph): ReadonlySet<string> =>
  new Set(
    modules.flatMap((m) =>
      m.inputs.flatMap(({ driver }) => (driver.type === 'output' ? [modules[driver.module]?.id ?? ''] : [])),
    ),
  );
