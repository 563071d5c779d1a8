import FFT from 'fft.js';
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
 * 1978), and its peaks, their place and height between bins by the window’s own law.
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

/**
 * Where between bins a sine stands, and its amplitude, from its bin and the larger of its neighbours: exact for a lone
 * sine under a Hann window (Grandke, "Interpolation algorithms for discrete Fourier transforms of weighted signals",
 * 1983).
 */
function between(left: number, middle: number, right: number): { readonly shift: number; readonly volts: number } {
  const way = right >= left ? 1 : -1;
  const ratio = Math.max(left, right) / middle;
  const off = (2 * ratio - 1) / (ratio + 1);
  if (!(off > 0)) return { shift: 0, volts: middle };
  return { shift: way * off, volts: (middle * Math.PI * off * (1 - off * off)) / Math.sin(Math.PI * off) };
}

function peaksOf(volts: Float64Array, binHz: number): Peak[] {
  const top = volts.subarray(1).reduce((a, b) => Math.max(a, b), 0);
  if (top === 0) return [];
  const floor = top * 10 ** (FLOOR_DB / 20);
  const found: Omit<Peak, 'db'>[] = [];
  for (let k = 2; k < volts.length - 1; k++) {
    const [a, b, c] = [volts[k - 1] as number, volts[k] as number, volts[k + 1] as number];
    if (b < floor || b <= a || b < c) continue;
    const { shift, volts: height } = between(a, b, c);
    const hz = (k + shift) * binHz;
    const { name, cents } = noteOfHz(hz);
    found.push({ hz, volts: height, note: name, cents });
  }
  const loudest = found.reduce((most, p) => Math.max(most, p.volts), 0);
  return found
    .sort((x, y) => y.volts - x.volts)
    .slice(0, MOST_PEAKS)
    .map((p) => ({ ...p, db: 20 * Math.log10(p.volts / loudest) }));
}
