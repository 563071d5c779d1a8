/** How an end follows the fader: evenly, slowly at first, or all at once. */
export const CURVES = ['straight', 'slow', 'switch'] as const;
export type Curve = (typeof CURVES)[number];

/** One end that a fader moves. */
export interface MacroRow {
  /** An input that reads in a unit of its own. */
  readonly end: string;
  /** Its figure while the fader has not begun, and at the fader's end; the second may be the lower. */
  readonly from: number;
  readonly to: number;
  readonly curve: Curve;
  /** Where on the fader it begins, or switches, volts. */
  readonly begins: number;
}

/** One fader to many ends: ordinary stages and cables under one name. */
export interface Macro {
  readonly name: string;
  /** The fader, a plain voltage. */
  readonly fader: string;
  /** Its way, volts. */
  readonly span: readonly [number, number];
  readonly rows: readonly MacroRow[];
}
