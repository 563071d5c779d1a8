import { completeParams, withTempo } from '../document/params';
import { outputsOf, realParams } from '../document/real';
import type { KnownErrors } from '../document/real';
import { buildGraph } from '../graph/graph';
import type { Graph, GraphModule } from '../graph/graph';
import { nameOf, socketAt } from '../document/sockets';
import type { HandPoint, Patch } from '../document/types';
import { isAbsent, knobsOf } from '../kinds/knobs';
import type { KnobOf } from '../kinds/knobs';
import type { ParamValues } from '../kinds/params';
import { positionOf, valueAt } from '../units/knob';
import type { ChannelLimits } from '../rack/limits';
import { normal } from '../kinds/random';
import type { Travel } from '../units/knob';

/** One sigma of what real modules are off by. */
export interface ModuleErrors {
  /** A knob, as a share of its travel. */
  readonly knob: number;
  /** An output's gain. */
  readonly gain: number;
  /** An output's offset, volts. */
  readonly offset: number;
  /** Single knobs of which more is known, by their parameter. */
  readonly knobs?: Readonly<Record<string, number>>;
}

export interface ErrorOptions extends Partial<ModuleErrors> {
  /** What is known of single modules, by their id. */
  readonly modules?: Readonly<Record<string, Partial<ModuleErrors>>>;
}

export const USUAL_ERRORS: ModuleErrors = { knob: 0.01, gain: 0.005, offset: 0.005 };

/** The errors of one module. */
export const errorsOf = ({ modules, ...all }: ErrorOptions, id: string, known?: KnownErrors): ModuleErrors => ({
  ...USUAL_ERRORS,
  ...all,
  ...known,
  ...modules?.[id],
});

/** One sigma of a knob, as a share of its travel. */
const knobError = ({ knob, knobs }: ModuleErrors, name: string): number => knobs?.[name] ?? knob;

/** What can be off about one module. */
interface OffModule {
  readonly m: GraphModule;
  readonly errors: ModuleErrors;
  /** All its parameters, before what takes another's place does. */
  readonly complete: ParamValues;
  readonly knobs: readonly { readonly name: string; readonly travel: Travel; readonly at: number }[];
}

/** A patch whose modules are off; nothing but settings, gains and offsets differs from draw to draw. */
export class ErrorModel {
  readonly graph: Graph;
  /** Kinds whose knobs change what is plugged or loaded. */
  private readonly anew: boolean;
  /** By index; of the modules that are looked at. */
  private readonly parts: ReadonlyMap<number, OffModule>;

  constructor(
    readonly patch: Patch,
    options: ErrorOptions,
    only?: (graph: Graph) => Graph,
    /** What the channels that it sits on have. */
    private readonly channels?: Pick<ChannelLimits, 'limits'>,
  ) {
    const graph = buildGraph(patch);
    this.graph = only ? only(graph) : graph;
    this.anew = graph.modules.some((m) => (m.kind.electrical?.passive?.(m.params) ?? null) !== null);
    const looked = new Set(this.graph.groups.flatMap((g) => g.modules));
    this.parts = new Map(
      graph.modules
        .filter((m) => looked.has(m.index))
        .map((m) => [m.index, this.partOf(m, errorsOf(options, m.id, patch.modules[m.index]?.real?.errors))]),
    );
  }

  private partOf(m: GraphModule, errors: ModuleErrors): OffModule {
    const { params: given, real } = this.patch.modules[m.index] ?? {};
    const complete = m.kind.panel?.tempo
      ? realParams(m.kind, completeParams(m.kind, given, this.patch.settings.bpm), real)
      : m.params;
    const there = (k: KnobOf): boolean =>
      !isAbsent(k, complete) || (this.channels?.limits.has(socketAt(m.id, k.name)) ?? false);
    const knobs = knobsOf(m.kind, complete)
      .filter(there)
      .map(({ name, spec, min, max }) => {
        const travel = { min, max, taper: spec.taper };
        return { name, travel, at: positionOf(travel, Number(complete[name])) };
      });
    return { m, errors, complete, knobs };
  }

  /** Every knob that is looked at. */
  get knobs(): { readonly m: GraphModule; readonly param: string; readonly sigma: number }[] {
    return [...this.parts.values()].flatMap(({ m, knobs, errors }) =>
      knobs.map(({ name }) => ({ m, param: name, sigma: knobError(errors, name) })),
    );
  }

  /** The same with one knob moved by a share of its travel. */
  withKnobMoved(module: number, param: string, by: number): Graph {
    return this.changed((part) =>
      part.m.index === module ? this.moved(part, (name) => (name === param ? by : 0)) : part.m,
    );
  }

  /** The same with all knobs, gains and offsets off by a draw each. */
  drawn(random: () => number): Graph {
    return this.changed((part) => {
      const { m, errors } = part;
      const { gain, offset } = errors;
      const off = this.moved(part, (name) => knobError(errors, name) * normal(random));
      const outputs = m.outputs.map(({ name, socket, factor, gain: own = 1, offset: shift = 0 }) => ({
        name,
        socket,
        factor,
        gain: own * (1 + gain * normal(random)),
        offset: shift + offset * normal(random),
      }));
      return { ...off, outputs };
    });
  }

  private changed(change: (part: OffModule) => GraphModule): Graph {
    const modules = this.graph.modules.map((m) => {
      const part = this.parts.get(m.index);
      return part ? change(part) : m;
    });
    if (!this.anew) return { ...this.graph, modules };
    const docs = this.patch.modules.map((m, i) => ({
      ...m,
      params: modules[i]?.params ?? m.params ?? {},
      // Its settings stand as they really are; its tuning is no parameter of the document.
      ...(m.real && { real: outputsOf(m.real) }),
    }));
    const rebuilt = buildGraph({ ...this.patch, modules: docs });
    // A pot that stands elsewhere loads otherwise; what is off at the outputs stays.
    const outputs = (m: GraphModule): GraphModule['outputs'] =>
      m.outputs.map(({ gain: _gain, offset: _offset, ...o }, i) => ({ ...modules[m.index]?.outputs[i], ...o }));
    return {
      ...rebuilt,
      groups: this.graph.groups,
      modules: rebuilt.modules.map((m) => ({ ...m, outputs: outputs(m) })),
    };
  }

  private moved({ m, complete, knobs }: OffModule, by: (param: string) => number): GraphModule {
    const params: Record<string, ParamValues[string]> = { ...complete };
    let { hands } = m;
    for (const { name, travel, at } of knobs) {
      const share = by(name);
      if (share === 0) continue;
      params[name] = valueAt(travel, at + share);
      // What a hand turns is off by as much wherever the hand has it.
      const off = (p: HandPoint): HandPoint => ({ ...p, value: valueAt(travel, positionOf(travel, p.value) + share) });
      hands = hands.map((h) => (nameOf(h.at) === name ? { ...h, points: h.points.map(off) } : h));
    }
    return { ...m, hands, params: withTempo(m.kind, params, this.patch.settings.bpm) };
  }
}
