import type {
  BenchReading,
  Calibration,
  Diagnosis,
  Fault,
  Overlay,
  Patch,
  PlaceToRead,
  Rack,
  ReadQuantity,
} from '../core';
import type { Simulated } from './bench';

/** What is worked out beside the page of a standing at the rack. */

/** A patch, and the rack that it stands on; null without one. */
export interface AtRack {
  readonly patch: Patch;
  readonly rack: Rack | null;
  /** With the rack's modules as they were measured. */
  readonly asMeasured: boolean;
}

export interface OverlayRequest {
  readonly at: string;
  readonly volts: Float32Array;
  readonly sampleRate: number;
  /** The recording is in volts. */
  readonly fixed: boolean;
}

export interface OverlayAnswer extends Omit<Overlay, 'predicted' | 'recorded'> {
  /** Least and greatest of each of a few hundred columns, for a picture. */
  readonly columns: {
    readonly predicted: readonly (readonly [number, number])[];
    readonly recorded: readonly (readonly [number, number])[];
    readonly difference: readonly (readonly [number, number])[];
  };
  readonly seconds: number;
  /** What an instrument would read of the recording, where it is in volts. */
  readonly figures: readonly { readonly quantity: ReadQuantity; readonly value: number }[];
}

export interface PredictedTrace {
  readonly volts: Float32Array;
  readonly sampleRate: number;
  readonly repeatsEvery: number | null;
  readonly quantities: readonly ReadQuantity[];
}

export interface BenchWorker {
  diagnose(of: AtRack, readings: readonly BenchReading[]): Promise<Diagnosis>;
  /** @param log as it is written. @throws Error that says what is wrong with it. */
  calibrate(rack: Rack, log: unknown): Promise<Calibration>;
  /** Every place of a patch with what can be read there. */
  places(of: AtRack): Promise<readonly PlaceToRead[]>;
  /** What a simulated rack reads. */
  read(
    of: AtRack,
    simulated: Simulated,
    places: readonly { readonly at: string; readonly quantity: ReadQuantity; readonly step?: string }[],
  ): Promise<readonly number[]>;
  /** What a socket does over a window, at a rate for a screen; its period where it has one, seconds. */
  trace(of: AtRack, at: string, seconds: number, sampleRate: number): Promise<PredictedTrace>;
  /** What a simulated rack records. */
  record(
    of: AtRack,
    simulated: Simulated,
    at: string,
    seconds: number,
  ): Promise<{ volts: Float32Array; sampleRate: number } | null>;
  layOver(of: AtRack, request: OverlayRequest): Promise<OverlayAnswer | null>;
  /** Every fault that can be put into a simulated rack, in words. */
  faults(of: AtRack): Promise<readonly { readonly text: string; readonly fault: Fault }[]>;
  /** A fault that can be seen where the sheet measures; the same for a seed. */
  surprise(of: AtRack, seed: number): Promise<{ readonly fault: Fault | null }>;
}
