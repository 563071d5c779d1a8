import type { Curve } from '../document/types';

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
  /** What becomes of what the end gets already, where it gets something. */
  readonly onto?: 'mix' | 'replace';
}

/** One fader to many ends: ordinary stages and cables, kept together by the document. */
export interface Macro {
  readonly name: string;
  /** The fader, a plain voltage. */
  readonly fader: string;
  /** Its way, volts. */
  readonly span: readonly [number, number];
  readonly rows: readonly MacroRow[];
}

/** An amplifier that a voltage opens for itself, for a curve that begins slowly, is full at this, volts. */
export const FULL_VOLTS = 5;
