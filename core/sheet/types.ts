import type { BrokenNormal } from '../graph/wiring';
import type { ParamValue } from '../kinds/params';

/** What a knob is turned to. */
export interface KnobStep {
  readonly param: string;
  readonly value: number;
  readonly percent: number;
  readonly clock: string;
  /** What the channel's panel says there, where it has figures of its own. */
  readonly panel?: number;
}

export interface SetupStep {
  readonly param: string;
  readonly value: ParamValue;
}

export type MeterQuantity = 'low' | 'high' | 'mean' | 'steady' | 'rms' | 'percent' | 'pulses';

export interface MeterReading {
  readonly quantity: MeterQuantity;
  readonly value: number;
  readonly plusMinus: number;
  readonly unit: 'V' | '%' | '/s';
}

/** What an instrument at a socket shows. */
export interface MeterExpectation {
  readonly at: string;
  readonly meter: readonly MeterReading[];
  readonly scope: { readonly peakToPeak: number; readonly period: number | null };
}

/** What will be heard or read at a destination; silence is null. */
export interface EarExpectation {
  readonly at: string;
  readonly ear: string;
  readonly low: number | null;
  readonly high: number | null;
  readonly unit: string;
}

interface Common {
  /** Stable against edits elsewhere. */
  readonly id: string;
  /** `start`, `sound`, `path <end>`, `last` */
  readonly part: string;
  readonly text: string;
}

export type SheetStep = Common &
  (
    | { readonly do: 'note' }
    | {
        readonly do: 'set';
        readonly module: string;
        readonly rack: string | null;
        /** The channel as people call it: `Swells, channel A`. */
        readonly channel: string | null;
        readonly knobs: readonly KnobStep[];
        readonly setup: readonly SetupStep[];
      }
    | {
        readonly do: 'plug';
        readonly cable: { readonly from: string; readonly to: string };
        readonly breaks: readonly BrokenNormal[];
        readonly split: boolean;
      }
    | { readonly do: 'measure'; readonly expect: MeterExpectation }
    | { readonly do: 'listen'; readonly expect: EarExpectation }
  );

export interface SheetNeeds {
  readonly modules: readonly {
    readonly module: string;
    readonly label: string;
    readonly kind: string;
    readonly rack: string | null;
    readonly channel: string | null;
    readonly standIn: string | null;
  }[];
  readonly cables: number;
  readonly splits: readonly { readonly at: string; readonly ways: number }[];
  readonly short: readonly { readonly module: string; readonly kind: string; readonly why: string }[];
}

export interface Sheet {
  readonly format: 'fenvo.sheet';
  readonly version: 1;
  readonly patch: string;
  readonly rack: string | null;
  readonly needs: SheetNeeds;
  readonly cautions: readonly string[];
  readonly steps: readonly SheetStep[];
}

/** What an instrument adds to what a patch is off by. */
export interface MeterSpec {
  /** Of a voltage, as a share, and volts. */
  readonly share: number;
  readonly volts: number;
  /** Of an AC figure, as a share. */
  readonly acShare: number;
}

export const USUAL_METER: MeterSpec = { share: 0.005, volts: 0.01, acShare: 0.015 };

/** The step that says that nothing leads the sound out. */
export const NO_OUTPUT = 'note-no-output';
