import type { Glance } from '../answers/glance';
import { blank } from '../document/parse';
import { showQuantity, showVolts } from '../units/show';
import { distanceOf, HALF } from './distance';

/** Of a voltage, volts; of what a destination does, in its own unit; or a share of the time, percent. */
export const FIGURES = [
  'low',
  'high',
  'peakToPeak',
  'mean',
  'rms',
  'readingLow',
  'readingHigh',
  'closedPercent',
  'highPercent',
] as const;
export type FigureName = (typeof FIGURES)[number];

/** A figure of a patch: which, and where. */
export interface FigureAt {
  /** An output, or an input that something arrives at. */
  readonly at: string;
  readonly figure: FigureName;
}

/** What a figure comes to; null where the destination is silent. */
export interface FigureValue {
  readonly value: number | null;
  readonly unit: string;
}

/** How a figure is called in a sentence. */
export const FIGURE_WORDS: Readonly<Record<FigureName, string>> = {
  low: 'lowest',
  high: 'highest',
  peakToPeak: 'peak to peak',
  mean: 'mean',
  rms: 'RMS',
  readingLow: 'lowest',
  readingHigh: 'highest',
  closedPercent: 'closed',
  highPercent: 'high',
};

/** A figure as it is shown: a height has no sign. */
export const figureText = ({ figure }: Pick<FigureAt, 'figure'>, { value, unit }: FigureValue): string =>
  value !== null && (figure === 'peakToPeak' || figure === 'rms') ? showVolts(value, false) : showQuantity(value, unit);

/** A figure of what a patch comes to; null where there is none at that place. */
export function figureOf(glance: Glance, { at, figure }: FigureAt): FigureValue | null {
  const socket = glance.outputs[at] ?? glance.inputs[at];
  const reading = glance.readings.find((r) => r.at === at && !r.further);
  const told = (value: number | undefined, unit: string): FigureValue | null =>
    value === undefined ? null : { value, unit };
  switch (figure) {
    case 'low':
      return told(socket?.arrives[0], 'V');
    case 'high':
      return told(socket?.arrives[1], 'V');
    case 'peakToPeak':
      return socket ? { value: socket.arrives[1] - socket.arrives[0], unit: 'V' } : null;
    case 'mean':
    case 'rms':
      return told(socket?.[figure], 'V');
    case 'readingLow':
      return reading ? { value: reading.arrivesLow, unit: reading.unit } : null;
    case 'readingHigh':
      return reading ? { value: reading.arrivesHigh, unit: reading.unit } : null;
    case 'closedPercent':
      return told(reading?.shutPercent, '%');
    case 'highPercent':
      return told(reading?.highPercent, '%');
  }
}

/** How an answer about a figure is marked: right, and how far it is off; as exercises are. */
export function markFigure(
  { at }: FigureAt,
  truth: FigureValue,
  answer: number,
): { readonly right: boolean; readonly close: boolean } {
  if (truth.value === null) return { right: false, close: false };
  const { times } = distanceOf({ at, unit: truth.unit }, blank, { value: answer }, { value: truth.value });
  return { right: times <= 1, close: times <= HALF };
}
