import FFT from 'fft.js';
import type { Graph, GraphModule } from '../graph/graph';
import type { Reading } from '../readings';
import { noteOfHz } from '../units/pitch';

export interface Peak {
  readonly hz: number;
  /** Amplitude of the sine that it is, volts. */
  readonly volts: number;
  /** Against the loudest peak. */
  readonly db: number;
  readonly note: string;
  readonly cents: number;
}

export interface ProductLine {
  /** `sum` or `difference` of the two sines' frequencies. */
  readonly is: 'sum' | 'difference';
  readonly predictedHz: number;
  /** The peak nearest to it, where one stands within half a bin. */
  readonly measuredHz: number | null;
}

export interface Spectrum {
  /** Hz from one bin to the next. */
  readonly binHz: number;
  /** Amplitude of each bin, volts, from 0 Hz up. */
  readonly volts: Float64Array;
  readonly peaks: readonly Peak[];
}

const LARGEST = 65_536;
const FLOOR_DB = -80;
const MOST_PEAKS = 16;

/**
 * The amplitudes of a trace's last part under a Hann window (Harris, "On the use of windows for harmonic analysis",
 * 1978), and its peaks, their place between bins by a parabola through three levels.
 *
 * @param trace volts; at least 64 samples.
 */
export function spectrumOf(trace: ArrayLike<number>, sampleRate: number): Spectrum {
  const size = Math.min(LARGEST, 2 ** Math.floor(Math.log2(Math.max(64, trace.length))));
  const start = Math.max(0, trace.length - size);
  const data = Float64Array.from({ length: size }, (_, i) => {
    const hann = 0.5 - 0.5 * Math.cos((2 * Math.PI * i) / size);
    return hann * (trace[start + i] ?? 0);
  });
  const fft = new FFT(size);
  const out = fft.createComplexArray();
  fft.realTransform(out, data);
  // A Hann window passes half of a sine's amplitude, and half of that stands at positive frequencies.
  const volts = Float64Array.from(
    { length: size / 2 },
    (_, k) => (Math.hypot(out[2 * k] ?? 0, out[2 * k + 1] ?? 0) * 4) / size,
  );
  volts[0] = (volts[0] as number) / 2;
  return { binHz: sampleRate / size, volts, peaks: peaksOf(volts, sampleRate / size) };
}

function peaksOf(volts: Float64Array, binHz: number): Peak[] {
  const top = volts.subarray(1).reduce((a, b) => Math.max(a, b), 0);
  if (top === 0) return [];
  const db = (v: number): number => 20 * Math.log10(Math.max(v, 1e-12) / top);
  const found: Peak[] = [];
  for (let k = 2; k < volts.length - 1; k++) {
    const [a, b, c] = [db(volts[k - 1] as number), db(volts[k] as number), db(volts[k + 1] as number)];
    if (b < FLOOR_DB || b <= a || b < c) continue;
    const shift = (0.5 * (a - c)) / (a - 2 * b + c);
    const level = b - 0.25 * (a - c) * shift;
    const hz = (k + shift) * binHz;
    const { name, cents } = noteOfHz(hz);
    found.push({ hz, volts: top * 10 ** (level / 20), db: level, note: name, cents });
  }
  const loudest = found.reduce((most, p) => Math.max(most, p.db), -Infinity);
  return found
    .sort((x, y) => y.volts - x.volts)
    .slice(0, MOST_PEAKS)
    .map((p) => ({ ...p, db: p.db - loudest }));
}

/** The frequency of the sine that an input gets, Hz; null if it gets anything else. */
function sineHz(graph: Graph, m: GraphModule, name: string, readings: readonly Reading[]): number | null {
  const driver = m.inputs.find((s) => s.spec.name === name)?.driver;
  if (driver?.type !== 'output') return null;
  const from = graph.modules[driver.module];
  if (from?.kind.name === 'lfo' && from.params.shape === 'sine' && from.inputs.every((s) => !s.connected))
    return Number(from.params.rateHz);
  if (from?.kind.name !== 'oscillator' || from.outputs[driver.output]?.name !== 'sine') return null;
  const pitch = readings.find((r) => r.at === `${from.id}.pitch`);
  return pitch && pitch.low === pitch.high ? pitch.low : null;
}

/** For the product of two sines: where their sum and difference must stand, beside where they were found. */
export function productLines(
  graph: Graph,
  socket: string,
  readings: readonly Reading[],
  spectrum: Spectrum,
): ProductLine[] {
  const m = graph.modules.find((x) => x.outputs.some((o) => o.socket === socket));
  const pair = m?.kind.name === 'ringMod' ? ['a', 'b'] : m?.kind.name === 'vca' ? ['in', 'cv'] : null;
  if (!m || !pair) return [];
  const [x, y] = pair.map((name) => sineHz(graph, m, name, readings));
  if (x == null || y == null) return [];
  return (['difference', 'sum'] as const).map((is) => {
    const predictedHz = is === 'sum' ? x + y : Math.abs(x - y);
    const near = spectrum.peaks.filter((p) => Math.abs(p.hz - predictedHz) <= spectrum.binHz / 2);
    return { is, predictedHz, measuredHz: near[0]?.hz ?? null };
  });
}
