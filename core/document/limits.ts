/** Limits of documents, each named once. */

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
  dismissed: 2000,
} as const;

/** Limits of a module's own noise, microvolts RMS. */
export const NOISE = { most: 100_000 } as const;

/** Limits of an imported trace. */
export const ASSET = { seconds: 120, leastRate: 1, mostRate: 192_000, volts: 1000, bytes: 100_000_000 } as const;

export const ID_PATTERN = '^[a-z][a-z0-9_-]{0,31}$';

export const OHMS = { input: 100_000, output: 0, max: 10_000_000 } as const;
