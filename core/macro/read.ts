import type { MacroDoc, MacroRowDoc, ModuleDoc, Patch } from '../document/types';
import { completeParams } from '../document/params';
import { nameOf } from '../document/sockets';
import { buildGraph } from '../graph/graph';
import type { Graph } from '../graph/graph';
import { kindNamed } from '../kinds';
import { endAt } from './reach';
import { FULL_VOLTS } from './types';
import type { Macro, MacroRow } from './types';

/** What a macro's stages are called at first: that of the fader, and where they lead. */
export const labelOf = (name: string, end: string): string => `${name.trim()} → ${end}`.slice(0, 80);

/** The macro of a fader as the document keeps it. */
export const macroOf = (patch: Patch, fader: string): MacroDoc | undefined =>
  patch.macros.find((m) => m.fader === fader);

const number = (m: ModuleDoc | undefined, param: string): number => {
  const kind = m && kindNamed(m.kind);
  return kind ? Number(completeParams(kind, m.params)[param]) : NaN;
};

/** What a row's stages come to: where it begins, and the voltages at both ends. NaN where they are other stages now. */
function voltagesOf(
  graph: Graph,
  { curve, stages, end, into }: MacroRowDoc,
  [low, high]: Macro['span'],
): { readonly begins: number; readonly from: number; readonly to: number } {
  const docs = stages.map((id) => graph.patch.modules.find((m) => m.id === id));
  const [first, last] = [docs[0], docs.at(-1)];
  if (curve === 'switch') {
    const [a, b] = [number(first, 'lowVolts'), number(first, 'highVolts')];
    const from = graph.wiring.cableInto(into ?? end)?.from ?? '';
    const begins = number(first, 'thresholdVolts');
    return nameOf(from) === 'inverted' ? { begins, from: b, to: a } : { begins, from: a, to: b };
  }
  const [amount, volts] = [number(last, 'amount'), number(last, 'volts')];
  if (docs.length === 1) return { begins: low, from: volts + amount * low, to: volts + amount * high };
  const begins = -number(first, 'volts') / number(first, 'amount');
  return { begins, from: volts, to: volts + amount * (curve === 'slow' ? FULL_VOLTS : high - begins) };
}

/** A knob holds six decimals: what is left of them is no figure of anybody's. */
const tidy = (x: number): number => Number((Math.round(x * 1e4) / 1e4).toPrecision(6)) || 0;

function rowOf(graph: Graph, row: MacroRowDoc, span: Macro['span']): MacroRow[] {
  const reached = endAt(graph, row.end);
  if (typeof reached === 'string') return [];
  const { begins, ...volts } = voltagesOf(graph, row, span);
  const [from, to] = [reached.figureAt(volts.from), reached.figureAt(volts.to)];
  if (from === null || to === null || ![begins, from, to].every(Number.isFinite)) return [];
  return [{ end: row.end, curve: row.curve, begins: tidy(begins), from: tidy(from), to: tidy(to) }];
}

/** The macros of a patch as tables, read back from their stages. */
export function macrosIn(patch: Patch): Macro[] {
  if (patch.macros.length === 0) return [];
  const graph = buildGraph(patch);
  return patch.macros.flatMap((macro): Macro[] => {
    const fader = patch.modules.find((m) => m.id === macro.fader);
    const span = [number(fader, 'lowVolts'), number(fader, 'highVolts')] as const;
    const rows = macro.rows.flatMap((row) => rowOf(graph, row, span));
    return rows.length > 0 ? [{ name: fader?.label ?? macro.fader, fader: macro.fader, span, rows }] : [];
  });
}
