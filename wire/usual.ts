import type { SavedSearch } from './requests';

/** What is chosen where nobody chose, and what can be: apart from the checks, which no page needs. */

export const THEMES = ['system', 'light', 'dark'] as const;
export const PITCHES = ['hertz', 'notes'] as const;
export const GAINS = ['decibels', 'percent'] as const;
export const POINTERS = ['both', 'percent', 'clock'] as const;

/** What is chosen where nobody chose. */
export const USUAL = {
  theme: 'system',
  /** Frequencies in hertz, or as notes first. */
  pitches: 'hertz',
  gains: 'decibels',
  /** Where a knob points. */
  pointers: 'both',
  /** Of new patches. */
  railVolts: 12,
  bpm: 120,
  /** The rack in use, by its id; empty for none. */
  rack: '',
  /** What the instrument is off by: of a reading, percent, and volts; of an AC reading, percent. */
  meterPercent: 0.5,
  meterVolts: 0.01,
  meterAcPercent: 1.5,
  /** Where listening starts, dB. */
  startDb: -30,
  /** The sound device, as the browser names it; empty for the system's. */
  device: '',
  /** Sound goes on while its tab is hidden. */
  background: true,
  singleKeys: true,
  drafts: true,
  /** Searches of the patches list. */
  searches: [] as readonly SavedSearch[],
} as const;

/** Limits of the numbers among them. */
export const PREFERENCE_LIMITS = {
  railVolts: [5, 24],
  bpm: [1, 999],
  meterPercent: [0, 10],
  meterVolts: [0, 1],
  meterAcPercent: [0, 20],
  // No louder, so that a start never hurts.
  startDb: [-60, -12],
} as const;
