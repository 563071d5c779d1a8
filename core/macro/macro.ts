import { idOf, socketAt } from '../document/sockets';
import type { MacroDoc, MacroRowDoc, ModuleDoc, Patch } from '../document/types';
import type { Edit } from '../edit/edit';
import { freeId } from '../edit/editSequence';
import { buildGraph } from '../graph/graph';
import type { Graph } from '../graph/graph';
import type { ParamValues } from '../kinds/params';
import { endAt } from './reach';
import { labelOf, macroOf, macrosIn } from './read';
import { FULL_VOLTS } from './types';
import type { Macro, MacroRow } from './types';

export interface MacroFault {
  /** Of which row; null of all. */
  readonly row: number | null;
  readonly message: string;
}

const TINY = 1e-9;

const rounded = (x: number): number => Math.round(x * 1e6) / 1e6 || 0;

/** Scale and offset with the least jumper that it takes; null where none reaches so far. */
function lift(amount: number, volts: number): ParamValues | null {
  const maxAmount = [1, 2, 4].find((m) => Math.abs(amount) <= m + TINY);
  const reach = [5, 10, 12].find((m) => Math.abs(volts) <= m + TINY);
  if (maxAmount === undefined || reach === undefined) return null;
  return {
    amount: rounded(amount),
    ...(maxAmount !== 1 && { maxAmount }),
    volts: rounded(volts),
    ...(reach !== 5 && { lowVolts: -reach, highVolts: reach }),
  };
}

interface Stage {
  readonly kind: string;
  readonly params: ParamValues;
  /** Where what comes goes in. */
  readonly inputs: readonly string[];
  /** The output that goes on. */
  readonly output: string;
}

/** The stages between a fader and an input that is to go from one voltage to another; null where no knob reaches. */
function stagesFor([low, high]: Macro['span'], { curve, begins }: MacroRow, from: number, to: number): Stage[] | null {
  const offset = (amount: number, volts: number): Stage[] | null => {
    const params = lift(amount, volts);
    return params && [{ kind: 'offset', params, inputs: ['in'], output: 'out' }];
  };
  const all = (...parts: readonly (Stage[] | null)[]): Stage[] | null =>
    parts.every((p) => p !== null) ? parts.flatMap((p) => p ?? []) : null;
  const positive: Stage[] = [{ kind: 'rectifier', params: { mode: 'positive' }, inputs: ['in'], output: 'out' }];
  if (curve === 'switch') {
    const rises = to >= from;
    const params = {
      thresholdVolts: begins,
      lowVolts: rounded(Math.min(from, to)),
      highVolts: rounded(Math.max(from, to)),
    };
    return [{ kind: 'comparator', params, inputs: ['in'], output: rises ? 'out' : 'inverted' }];
  }
  const late = begins > low + TINY;
  if (curve === 'slow') {
    const scale = FULL_VOLTS / (high - begins);
    const squared: Stage[] = [{ kind: 'vca', params: {}, inputs: ['in', 'cv'], output: 'out' }];
    return all(offset(scale, -begins * scale), late ? positive : [], squared, offset((to - from) / FULL_VOLTS, from));
  }
  if (late) return all(offset(1, -begins), positive, offset((to - from) / (high - begins), from));
  const amount = (to - from) / (high - low);
  return offset(amount, from - amount * low);
}

/** An end that gets something already, and what: asked about before it is unplugged. */
export interface Occupied {
  readonly row: number;
  readonly end: string;
  readonly from: string;
}

/** What a macro comes to: edits, or what must be mended or answered first. */
export interface MacroPlan {
  readonly edits: Edit[];
  readonly faults: MacroFault[];
  readonly occupied: Occupied[];
}

/** Lays one macro out, end by end. */
class Layout {
  readonly edits: Edit[] = [];
  readonly faults: MacroFault[] = [];
  readonly occupied: Occupied[] = [];
  private readonly graph: Graph;
  private readonly old: MacroDoc | undefined;
  private readonly gone: ReadonlySet<string>;
  private readonly docs: ModuleDoc[] = [];
  private readonly rows: MacroRowDoc[] = [];

  constructor(
    private readonly patch: Patch,
    private readonly macro: Macro,
  ) {
    this.graph = buildGraph(patch);
    this.old = macroOf(patch, macro.fader);
    // Ends whose stages are others by now are no rows of the table, and stay as they are.
    const known = new Set(
      macrosIn(patch)
        .find((m) => m.fader === macro.fader)
        ?.rows.map((r) => r.end),
    );
    const rows = this.old?.rows ?? [];
    this.gone = new Set(rows.filter((r) => known.has(r.end)).flatMap((r) => r.stages));
    this.rows.push(...rows.filter((r) => !known.has(r.end)));
    this.edits.push(...[...this.gone].map((id): Edit => ({ do: 'remove', id })));
  }

  run(): MacroPlan {
    const { name, fader, span, rows } = this.macro;
    if (name.trim() === '') this.faults.push({ row: null, message: 'Enter a name.' });
    if (!(span[1] > span[0]))
      this.faults.push({ row: null, message: 'The fader’s maximum must be above its minimum.' });
    rows.forEach((row, i) => this.row(row, i));
    const macro = this.rows.length > 0 ? { fader, rows: this.rows } : null;
    this.edits.push(
      { do: 'set', module: fader, param: 'lowVolts', value: span[0] },
      { do: 'set', module: fader, param: 'highVolts', value: span[1] },
      { do: 'label', module: fader, label: name.trim() },
      { do: 'macro', fader, macro },
    );
    const edits = this.faults.length > 0 || this.occupied.length > 0 ? [] : this.edits;
    return { edits, faults: this.faults, occupied: this.occupied };
  }

  private row(row: MacroRow, i: number): void {
    const { name, fader, span, rows } = this.macro;
    const fault = (message: string): void => void this.faults.push({ row: i, message });
    if (rows.findIndex((r) => r.end === row.end) < i) return fault('This destination is listed twice.');
    const late = row.curve !== 'switch' && row.begins >= span[1];
    if (row.begins < span[0] || row.begins > span[1] || late)
      return fault('The start must be within the fader’s range.');
    const reached = endAt(this.graph, row.end);
    if (typeof reached === 'string') return fault(reached);
    const [from, to] = [reached.voltsFor(row.from), reached.voltsFor(row.to)];
    if (from === null || to === null) return fault('These values can’t be reached.');
    const stages = stagesFor(span, row, from, to);
    if (!stages) return fault('Out of range for a scale and offset. Turn up the destination’s CV amount.');
    const before = this.old?.rows.find((r) => r.end === row.end)?.into;
    const into = before ?? this.inputFor(row, i);
    let at = socketAt(fader, 'out');
    const ids: string[] = [];
    for (const { kind, params, inputs, output } of stages) {
      const id = this.add(kind, params, labelOf(name, reached.label), `${fader}-${idOf(row.end)}`);
      for (const input of inputs) this.edits.push({ do: 'plug', cable: { from: at, to: socketAt(id, input) } });
      at = socketAt(id, output);
      ids.push(id);
    }
    this.edits.push({ do: 'plug', cable: { from: at, to: into } });
    const joined = into === row.end ? {} : { into };
    this.rows.push({ end: row.end, curve: row.curve, stages: ids, ...joined });
  }

  /** Where the last stage is plugged: into the end, or beside what it gets already. */
  private inputFor(row: MacroRow, i: number): string {
    const cable = this.graph.wiring.cableInto(row.end);
    if (!cable || this.gone.has(idOf(cable.from)) || row.onto === 'replace') return row.end;
    if (row.onto === undefined) {
      this.occupied.push({ row: i, end: row.end, from: cable.from });
      return row.end;
    }
    const id = this.add('mixer', { inputs: 2 }, `${this.macro.name.trim()} joins`, `join-${idOf(row.end)}`);
    this.edits.push(
      { do: 'plug', cable: { from: cable.from, to: socketAt(id, 'in1') } },
      { do: 'plug', cable: { from: socketAt(id, 'out'), to: row.end } },
    );
    return socketAt(id, 'in2');
  }

  private add(kind: string, params: ParamValues, label: string, wanted: string): string {
    const kept = this.patch.modules.filter((m) => !this.gone.has(m.id));
    const id = freeId({ modules: [...kept, ...this.docs] }, wanted);
    const module: ModuleDoc = { id, kind, label, params };
    this.docs.push(module);
    this.edits.push({ do: 'add', module });
    return id;
  }
}

/**
 * The edits that lay a macro out, in the place of what it was. What cannot be is told row by row, ends that get
 * something already are asked about, and nothing is changed then.
 */
export const macroEdits = (patch: Patch, macro: Macro): MacroPlan => new Layout(patch, macro).run();
