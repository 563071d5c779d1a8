import { scaleLog } from 'd3-scale';
import type { SpectrumAnswer } from '@/wire/core';

export const FLOOR_DB = -90;
const LOWEST_HZ = 10;
/** As many points as a screen is wide. */
const COLUMNS = 480;

export interface SpectrumPoint {
  readonly hz: number;
  /** Under the loudest bin. */
  readonly db: number;
}

/** The frequencies that are shown, Hz. */
export function hertzOf({ volts, binHz }: SpectrumAnswer): readonly [number, number] {
  const nyquist = binHz * volts.length;
  return [Math.min(LOWEST_HZ, nyquist / 4), nyquist];
}

/** The loudest bin of each column of a logarithmic axis, so that no line falls between two. */
export function pointsOf(spectrum: SpectrumAnswer): SpectrumPoint[] {
  const { volts, binHz } = spectrum;
  const column = scaleLog().domain(hertzOf(spectrum)).range([0, COLUMNS]);
  const top = volts.reduce((a, b) => Math.max(a, b), 1e-12);
  const best = new Map<number, SpectrumPoint>();
  for (let k = 1; k < volts.length; k++) {
    const hz = k * binHz;
    const at = Math.round(column(hz));
    const db = Math.max(FLOOR_DB, 20 * Math.log10(Math.max(1e-12, volts[k] as number) / top));
    if (at >= 0 && db > (best.get(at)?.db ?? -Infinity)) best.set(at, { hz, db });
  }
  return [...best.values()].sort((a, b) => a.hz - b.hz);
}
