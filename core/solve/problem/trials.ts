import { BoundsEngine } from '../../bounds/bounds';
import type { Closeness } from '../../bounds/tighten';
import { applyEdits } from '../../edit/edit';
import type { Edit } from '../../edit/edit';
import type { Patch } from '../../document/types';
import { targetSockets } from '../../document/targets';
import type { Target } from '../../document/targets';
import { buildGraph } from '../../graph/graph';
import type { Graph, GraphModule } from '../../graph/graph';
import { partBehind } from '../../graph/upstream';
import type { Budget } from './budget';
import { settingAt, valueBeyond } from './knobs';
import type { FreeKnob } from './knobs';
import { settingOf } from './setting';
import type { Runner, Setting } from './setting';

export interface TrialOptions {
  /** What looks are counted on. */
  readonly budget?: Budget;
  readonly closeness?: Closeness;
  /** Makes what runs the patch for its traces; left out: there are none. */
  readonly runner?: () => Runner;
  /** For traces of slow voltages alone; left out: the patch's own. */
  readonly sampleRate?: number;
}

/** A graph's setting, with traces where there is something to run it. */
export const lookedAt = (graph: Graph, engine: BoundsEngine, { runner, sampleRate }: TrialOptions): Setting =>
  settingOf(graph, engine, engine.run(graph), {
    ...(runner && { run: runner() }),
    ...(sampleRate !== undefined && { sampleRate }),
  });

/** Tries knobs: works out again only what they reach, with the same answers as a prediction from the start. */
export class Trials {
  private readonly engine: BoundsEngine;
  private readonly graph: Graph;
  /** Whether a knob changes what is plugged or loaded, so that the graph must be made anew. */
  private readonly anew: boolean;

  constructor(
    readonly patch: Patch,
    private readonly targets: readonly Target[],
    readonly knobs: readonly FreeKnob[],
    private readonly options: TrialOptions = {},
  ) {
    this.engine = new BoundsEngine(options.closeness);
    this.graph = this.behind(buildGraph(patch));
    this.anew = knobs.some(({ module }) => {
      const m = this.graph.modules[module];
      return (
        m !== undefined &&
        (m.kind.panel?.tempo !== undefined || (m.kind.electrical?.passive?.(m.params) ?? null) !== null)
      );
    });
  }

  /** As they stand now. */
  get modules(): readonly GraphModule[] {
    return this.graph.modules;
  }

  /** Where all knobs stand now. */
  get start(): Float64Array {
    return Float64Array.from(this.knobs, (k) => k.from);
  }

  /** The edits that lead to these positions, of the knobs that are moved. */
  edits(x: ArrayLike<number>): Edit[] {
    return this.knobs.flatMap((k, i): Edit[] =>
      x[i] === k.from ? [] : [{ do: 'set', module: k.id, param: k.param, value: settingAt(k.travel, x[i] as number) }],
    );
  }

  at(x: ArrayLike<number>): Setting {
    this.options.budget?.look();
    const graph = this.graphAt(x);
    return lookedAt(graph, this.engine, this.options);
  }

  /** Only what the targets hang on. */
  private behind(graph: Graph): Graph {
    return partBehind(graph, targetSockets(this.targets));
  }

  private graphAt(x: ArrayLike<number>): Graph {
    if (this.anew) return this.behind(buildGraph(applyEdits(this.patch, this.edits(x))));
    const moved = new Map<number, Record<string, number>>();
    this.knobs.forEach((k, i) => {
      if (x[i] === k.from) return;
      const params = moved.get(k.module) ?? {};
      params[k.param] = valueBeyond(k.travel, x[i] as number);
      moved.set(k.module, params);
    });
    const modules = this.graph.modules.map((m): GraphModule => {
      const params = moved.get(m.index);
      return params ? { ...m, params: { ...m.params, ...params } } : m;
    });
    return { ...this.graph, modules };
  }
}
