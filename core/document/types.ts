import type { ParamValue } from '../kinds/params';
import type { Target } from './wants';

export type { Target } from './wants';

export type Json = null | boolean | number | string | readonly Json[] | { readonly [key: string]: Json };

export type Loading = 'electrical' | 'ideal';

export interface Settings {
  readonly railVolts: number;
  readonly sampleRate: 'auto' | number;
  readonly duration: number;
  readonly seed: number;
  readonly loading: Loading;
  readonly bpm: number;
}

export interface ModuleDoc {
  readonly id: string;
  readonly kind: string;
  readonly label?: string;
  /** Only what differs from the defaults. */
  readonly params?: Readonly<Record<string, ParamValue>>;
  readonly locked?: readonly string[];
  readonly outputOhms?: Readonly<Record<string, number>>;
  readonly inputOhms?: Readonly<Record<string, number>>;
  /** `moduleId/channelId` of the rack. */
  readonly rack?: string;
}

export interface Cable {
  readonly from: string;
  readonly to: string;
}

export type Normal =
  | { readonly to: string; readonly volts: number }
  | { readonly to: string; readonly from: string; readonly brokenBy?: 'source' };

export interface Probe {
  readonly at: string;
  readonly label?: string;
}

export interface Dismissal {
  readonly code: string;
  readonly at: string;
  readonly reason: string;
}

export interface HandPoint {
  /** Seconds from the start. */
  readonly t: number;
  /** In the knob's own unit. */
  readonly value: number;
}

/** A hand that turns a knob over time. */
export interface Hand {
  /** `moduleId.parameter` */
  readonly at: string;
  readonly points: readonly HandPoint[];
  readonly interpolation: 'linear' | 'hold';
  readonly loop: boolean;
}

/** How an end follows its fader: evenly, slowly at first, or all at once. */
export const CURVES = ['straight', 'slow', 'switch'] as const;
export type Curve = (typeof CURVES)[number];

/** The stages between a fader and one end that it moves. */
export interface MacroRowDoc {
  readonly end: string;
  readonly curve: Curve;
  /** Modules, from the fader on. */
  readonly stages: readonly string[];
  /** The input that the last of them is plugged into, where that is not the end itself: of a mixer before it. */
  readonly into?: string;
}

/** One fader to many ends. */
export interface MacroDoc {
  readonly fader: string;
  readonly rows: readonly MacroRowDoc[];
}

/** A stage that is out of its path for now, and the cables that put it back. */
export interface Bypass {
  readonly module: string;
  readonly cables: readonly Cable[];
}

/** What a variant keeps: all that can be heard or measured, and nothing that is only about the desk. */
export interface PatchState {
  readonly settings: Settings;
  readonly modules: readonly ModuleDoc[];
  readonly cables: readonly Cable[];
  readonly normals: readonly Normal[];
  readonly targets: readonly Target[];
  /** Hands that turn knobs over time. */
  readonly hands: readonly Hand[];
  readonly macros: readonly MacroDoc[];
}

/** A state of the patch that is kept under a name. */
export interface Variant extends PatchState {
  readonly name: string;
}

export interface Patch extends PatchState {
  readonly format: 'fenvo.patch';
  readonly version: 1;
  readonly name: string;
  readonly notes: string;
  readonly probes: readonly Probe[];
  readonly order: readonly string[];
  readonly dismissed: readonly Dismissal[];
  readonly bypassed: readonly Bypass[];
  readonly variants: readonly Variant[];
  /** Top-level keys that this version does not know, kept as they were. */
  readonly extra: Readonly<Record<string, Json>>;
}

export interface PatchError {
  /** Where: `modules[2].params.rateHz`. */
  readonly path: string;
  readonly message: string;
}

export type Result<T, E> = { readonly ok: true; readonly value: T } | { readonly ok: false; readonly errors: E };

export const LIMITS = {
  modules: 400,
  cables: 2000,
  bytes: 5_000_000,
  /** Levels of nesting, the document itself being the first. */
  depth: 100,
  name: 200,
  notes: 20_000,
  label: 80,
  normals: 2000,
  targets: 400,
  probes: 400,
  variants: 40,
} as const;

/** Limits of an imported trace. */
export const ASSET = { seconds: 120, leastRate: 1, mostRate: 192_000, volts: 1000, bytes: 100_000_000 } as const;

export const ID_PATTERN = '^[a-z][a-z0-9_-]{0,31}$';

/** Limits and defaults of the settings: for the parser, the schema and the editor. */
export const SETTINGS = {
  railVolts: { default: 12, min: 5, max: 24 },
  sampleRate: { default: 'auto', min: 1000, max: 192_000 },
  duration: { default: 8, min: 0.01, max: 120 },
  seed: { default: 1, min: 0, max: 4_294_967_295 },
  loading: { default: 'electrical', options: ['electrical', 'ideal'] },
  bpm: { default: 120, min: 1, max: 999 },
} as const;

export const OHMS = { input: 100_000, output: 0, max: 10_000_000 } as const;
