import type { Repeats } from '../bounds/repeats';
import { repeatsIn } from '../bounds/repeats';
import { slowSeconds } from '../bounds/slow';
import { socketAt } from '../document/sockets';
import type { Graph, GraphInput, GraphModule } from '../graph/graph';
import type { GainSpec } from '../kinds/kind';
import type { ParamValues } from '../kinds/params';
import { upstreamAt } from '../simulate/arrival';
import type { Observer } from '../simulate/types';
import { showDb, showVolts } from '../units/show';
import { cures, setCure, setParam, watching } from './finding';
import type { Cure, Found } from './finding';
import { insertOffset } from './insert';
import { AUDIO_HZ, carriesAudio, inputsNamed, upstreamModules } from './paths';

/** A mean of less than this share of the gain's span is none: what a window of many cycles leaves of one. */
const NULLED = 1e-3;
/** Samples that are kept of a control, at most. */
const MOST = 1 << 21;
/** The cycles of sound after which the rest of the last one no longer matters to the mean. */
const CYCLES = 100;
/** Samples that a mean is taken over, at most. */
const LOOKS = 50_000;

type Gain = GainSpec<ParamValues>;

/** Keeps what the controls of a multiplier do over the window. */
class ControlWatch implements Observer {
  readonly sockets: readonly string[];
  readonly traces: readonly number[][];

  constructor(
    readonly m: GraphModule,
    readonly spec: Gain,
  ) {
    this.sockets = spec.controls.map((name) => socketAt(m.id, name));
    this.traces = spec.controls.map(() => []);
  }

  block(buffers: readonly Float64Array[], count: number): void {
    if ((this.traces[0]?.length ?? MOST) >= MOST) return;
    this.traces.forEach((trace, j) => {
      for (let i = 0; i < count; i++) trace.push((buffers[j] as Float64Array)[i] as number);
    });
  }
}

interface Gains {
  readonly mean: number;
  readonly least: number;
  readonly most: number;
  /** Root mean square of what is left without the mean. */
  readonly moving: number;
}

/** What a multiplier makes of its signal from a sample on, one of its controls shifted. */
function gainsOf(
  { m, spec, traces }: ControlWatch,
  from: number,
  sampleRate: number,
  moved: number,
  shift: number,
): Gains {
  const gain = spec.gain(m.params, sampleRate);
  const end = traces[0]?.length ?? 0;
  const step = Math.max(1, Math.floor((end - from) / LOOKS));
  const volts = traces.map(() => 0);
  let [count, sum, squares, least, most] = [0, 0, 0, Infinity, -Infinity];
  for (let i = from; i < end; i += step, count++) {
    for (let j = 0; j < volts.length; j++) volts[j] = (traces[j]?.[i] as number) + (j === moved ? shift : 0);
    const g = gain(volts);
    sum += g;
    squares += g * g;
    least = Math.min(least, g);
    most = Math.max(most, g);
  }
  const mean = sum / count;
  return { mean, least, most, moving: Math.sqrt(Math.max(0, squares / count - mean * mean)) };
}

/** The first sample of what the mean is taken over; null where the window does not hold it whole. */
function wholeFrom(
  graph: Graph,
  { m, spec, traces }: ControlWatch,
  repeats: ReadonlyMap<string, Repeats>,
): number | null {
  const samples = traces[0]?.length ?? 0;
  const sources = [...upstreamModules(graph, inputsNamed(m, spec.controls))];
  const { slow, drawn } = upstreamAt(graph, m, spec.controls, repeats);
  if (drawn) return null;
  const every = slowSeconds(slow);
  if (every !== null && every > 1 / AUDIO_HZ) {
    const period = Math.round(every * graph.sampleRate);
    return period <= samples ? samples - period : null;
  }
  const hertz = Math.min(...sources.map((x) => x.kind.source?.hertz?.(x.params) ?? 0).filter((f) => f > 0));
  const from = Math.max(0, samples - LOOKS);
  return Number.isFinite(hertz) && (hertz * (samples - from)) / graph.sampleRate >= CYCLES ? from : null;
}

/** The shift of one control that nulls the mean gain, between two that leave opposite ones (bisection). */
function nulling(meanAt: (shift: number) => number, reach: number): number | null {
  let [low, high] = [-reach, reach];
  const [a, b] = [meanAt(low), meanAt(high)];
  if (!(a * b < 0)) return null;
  for (let i = 0; i < 40; i++) {
    const middle = (low + high) / 2;
    if (meanAt(middle) * a > 0) low = middle;
    else high = middle;
  }
  return Number(((low + high) / 2).toFixed(6));
}

function cureOf(graph: Graph, m: GraphModule, moved: GraphInput, shift: number | null): Cure | null {
  if (shift === null) return null;
  const amplifier = m.kind.stage?.amplifier;
  const { amount } = moved.spec;
  const scale = amount === undefined ? 1 : Number(m.params[amount]);
  if (amplifier) {
    const bias = Number((Number(m.params[amplifier.bias]) + shift * scale).toFixed(6));
    return setCure(`Set bias to ${showVolts(bias)}`, setParam(m.id, amplifier.bias, bias));
  }
  const edits = insertOffset(graph, moved.socket, 'Null', 1, shift);
  return edits.length > 0 ? setCure(`Add a ${showVolts(shift)} offset`, ...edits) : null;
}

export const carrier = watching<ControlWatch>({
  code: 'carrier',
  title: 'Carrier comes through',
  why: 'A balanced multiplier leaves only the product where its control is even about 0 V. A steady part of the control lets the signal itself through beside it; null it with the bias, unless that is the sound you want.',
  when: 'a four-quadrant VCA or polarizer, or a DC coupled ring modulator, has sound at one input, and the gain that its other input makes of it changes sign with a mean of more than 0.1% of its span',
  cures: 'sets the bias, or adds the offset, that nulls the mean gain',
  watch: (graph) =>
    graph.modules.flatMap((m) =>
      (m.kind.stage?.gains ?? [])
        .filter((spec) => spec.balances?.(m.params) ?? false)
        .filter((spec) => inputsNamed(m, spec.signals).some((s) => carriesAudio(graph, s)))
        .filter((spec) => inputsNamed(m, spec.controls).some((s) => s.driver.type === 'output'))
        .map((spec) => new ControlWatch(m, spec)),
    ),
  find({ graph, bounds }, watched) {
    const repeats = repeatsIn(graph, bounds);
    return watched.flatMap((watch): Found[] => {
      const { m, spec } = watch;
      const from = wholeFrom(graph, watch, repeats);
      const moved = spec.controls.findIndex((name) => inputsNamed(m, [name])[0]?.driver.type === 'output');
      const input = inputsNamed(m, [spec.controls[moved] ?? ''])[0];
      if (from === null || !input) return [];
      const at = (shift: number): Gains => gainsOf(watch, from, graph.sampleRate, moved, shift);
      const { mean, least, most, moving } = at(0);
      if (!(least < 0 && most > 0) || Math.abs(mean) <= NULLED * (most - least)) return [];
      const carrierDb = 20 * Math.log10(Math.abs(mean) / moving);
      const shift = nulling((x) => at(x).mean, graph.patch.settings.railVolts);
      return [
        {
          code: 'carrier',
          severity: 'note',
          at: input.socket,
          message: `${m.label} lets its carrier through at ${showDb(carrierDb)} relative to the product: its control is not even about 0 V.`,
          numbers: { carrierDb },
          cures: cures(cureOf(graph, m, input, shift)),
        },
      ];
    });
  },
});
