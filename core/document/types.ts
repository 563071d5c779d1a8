/** The types of documents, for all who only speak of them; they are declared in the files beside. */
export type { Hand, HandPoint } from './hands';
export { ASSET, LIMITS, OHMS } from './limits';
export type { Curve, MacroDoc, MacroRowDoc } from './macros';
export type { Bypass, Cable, Dismissal, ModuleDoc, Normal, Patch, PatchState, Probe, Settings, Variant } from './patch';
export type { Json, PatchError, Result } from './result';
export type { Target } from './targets';
