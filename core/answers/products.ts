import { socketAt } from '../document/sockets';
import { gainThrough, inputNamed, sourceOf } from '../findings/paths';
import type { Graph, GraphInput, GraphModule } from '../graph/graph';
import type { Spectrum } from '../simulate/spectrum';
import type { Reading } from './readings';

export interface ProductLine {
  /** `sum` or `difference` of the two sines' frequencies. */
  readonly is: 'sum' | 'difference';
  readonly predictedHz: number;
  /** The peak nearest to it, where one stands within half a bin. */
  readonly measuredHz: number | null;
}

/** Whether a module passes its one driven signal as a straight line. */
function isStraight(m: GraphModule, input: GraphInput, output: string): boolean {
  const at = (volts: number): number => gainThrough(m, input, output, (s) => (s === input ? volts : standing(s)));
  return Math.abs(at(3) - at(-3)) < 1e-9 && at(0) !== 0;
}

const standing = (s: GraphInput): number => (s.driver.type === 'volts' ? s.driver.volts : 0);

/** The frequency of the sine that an input gets, Hz, also through stages that scale and shift; null of anything else. */
function sineHz(graph: Graph, input: GraphInput | undefined, readings: readonly Reading[]): number | null {
  const from = input && sourceOf(graph, input);
  if (!from) return null;
  const { m, output } = from;
  const sine = m.kind.source?.sine?.(m.params, output) ?? null;
  if (sine === 'rate') return m.inputs.every((s) => !s.connected) ? (m.kind.source?.hertz?.(m.params) ?? null) : null;
  if (sine) {
    const read = readings.find((r) => r.at === socketAt(m.id, sine.end));
    return read && read.low === read.high ? read.low : null;
  }
  const driven = m.inputs.filter((s) => s.driver.type === 'output');
  const [only] = driven;
  if (m.kind.category !== 'between' || !only || driven.length !== 1 || !isStraight(m, only, output)) return null;
  return sineHz(graph, only, readings);
}

/** For the product of two sines: where their sum and difference must stand, beside where they were found. */
export function productLines(
  graph: Graph,
  socket: string,
  readings: readonly Reading[],
  spectrum: Spectrum,
): ProductLine[] {
  const m = graph.modules.find((x) => x.outputs.some((o) => o.socket === socket));
  if (!m) return [];
  const pairs = (m.kind.stage?.gains ?? []).flatMap(({ signals, controls }) =>
    signals.flatMap((signal) => controls.map((control) => [signal, control])),
  );
  const sines = pairs.map((pair) => pair.map((name) => sineHz(graph, inputNamed(m, name), readings)));
  const [x, y] = sines.find(([a, b]) => a != null && b != null) ?? [];
  if (x == null || y == null) return [];
  return (['difference', 'sum'] as const).map((is) => {
    const predictedHz = is === 'sum' ? x + y : Math.abs(x - y);
    const near = spectrum.peaks.filter((p) => Math.abs(p.hz - predictedHz) <= spectrum.binHz / 2);
    return { is, predictedHz, measuredHz: near[0]?.hz ?? null };
  });
}
