import { idOf, socketAt } from '../document/sockets';
import type { ModuleDoc, Patch } from '../document/types';
import type { Edit } from '../edit/edit';
import { freeId } from '../edit/ids';
import { buildGraph } from '../graph/graph';
import type { ParamValues } from '../kinds/params';
import { endAt } from './reach';
import { labelOf, rowsModules } from './read';
import type { Macro, MacroRow } from './types';

export interface MacroFault {
  /** Of which row; null of all. */
  readonly row: number | null;
  readonly message: string;
}

/** Both ways a curve that begins slowly is bent: an amplifier that a voltage opens for itself is full at this, volts. */
const FULL = 5;
const TINY = 1e-9;

const rounded = (x: number): number => Math.round(x * 1e6) / 1e6 || 0;

/** Scale and lift with the least jumper that it takes; null where none reaches so far. */
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
    const scale = FULL / (high - begins);
    const squared: Stage[] = [{ kind: 'vca', params: {}, inputs: ['in', 'cv'], output: 'out' }];
    return all(offset(scale, -begins * scale), late ? positive : [], squared, offset((to - from) / FULL, from));
  }
  if (late) return all(offset(1, -begins), positive, offset((to - from) / (high - begins), from));
  const amount = (to - from) / (high - low);
  return offset(amount, from - amount * low);
}

/**
 * The edits that lay a macro out, in the place of what it was; what cannot be is told row by row, and nothing is
 * changed then.
 */
export function macroEdits(patch: Patch, macro: Macro): { readonly edits: Edit[]; readonly faults: MacroFault[] } {
  const { name, fader, span, rows } = macro;
  const graph = buildGraph(patch);
  const faults: MacroFault[] = [];
  if (name.trim() === '') faults.push({ row: null, message: 'Give it a name.' });
  if (!(span[1] > span[0])) faults.push({ row: null, message: 'The fader must end above where it begins.' });
  const old = rowsModules(patch, fader);
  const kept: Patch['modules'] = patch.modules.filter((m) => !old.has(m.id));
  const edits: Edit[] = [...old].map((id) => ({ do: 'remove', id }));
  const docs: ModuleDoc[] = [];
  rows.forEach((row, i) => {
    const fault = (message: string): void => void faults.push({ row: i, message });
    if (rows.findIndex((r) => r.end === row.end) < i) return fault('It is in the table twice.');
    const late = row.curve !== 'switch' && row.begins >= span[1];
    if (row.begins < span[0] || row.begins > span[1] || late) return fault('It must begin on the fader’s way.');
    const reached = endAt(graph, row.end);
    if (typeof reached === 'string') return fault(reached);
    const [from, to] = [reached.voltsFor(row.from), reached.voltsFor(row.to)];
    if (from === null || to === null) return fault('It cannot be brought to these figures.');
    const stages = stagesFor(span, row, from, to);
    if (!stages) return fault('No scale and offset reaches so far: turn the end’s own amount up.');
    let at = socketAt(fader, 'out');
    for (const { kind, params, inputs, output } of stages) {
      const id = freeId({ modules: [...kept, ...docs] }, `${fader}-${idOf(row.end)}`);
      const stage: ModuleDoc = { id, kind, label: labelOf(name, reached.label), params };
      docs.push(stage);
      edits.push({ do: 'add', module: stage });
      for (const input of inputs) edits.push({ do: 'plug', cable: { from: at, to: socketAt(id, input) } });
      at = socketAt(id, output);
    }
    edits.push({ do: 'plug', cable: { from: at, to: row.end } });
  });
  edits.push(
    { do: 'set', module: fader, param: 'lowVolts', value: span[0] },
    { do: 'set', module: fader, param: 'highVolts', value: span[1] },
    { do: 'label', module: fader, label: name.trim() },
  );
  return faults.length > 0 ? { edits: [], faults } : { edits, faults };
}
