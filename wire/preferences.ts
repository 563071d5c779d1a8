import { byDefault, choice, flag, number, record, text } from '../core/document/fields';
import type { ValueOf } from '../core/document/fields';

/** What one chooses once, kept with the library: each declared once, for the server's check and the page's choices. */

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

const within = (name: keyof typeof PREFERENCE_LIMITS) => {
  const [least, most] = PREFERENCE_LIMITS[name];
  return byDefault(number(least, most), USUAL[name]);
};

export const preferencesRequest = record({
  theme: byDefault(choice(THEMES), USUAL.theme),
  pitches: byDefault(choice(PITCHES), USUAL.pitches),
  gains: byDefault(choice(GAINS), USUAL.gains),
  pointers: byDefault(choice(POINTERS), USUAL.pointers),
  railVolts: within('railVolts'),
  bpm: within('bpm'),
  rack: byDefault(text(64), USUAL.rack),
  meterPercent: within('meterPercent'),
  meterVolts: within('meterVolts'),
  meterAcPercent: within('meterAcPercent'),
  startDb: within('startDb'),
  device: byDefault(text(200), USUAL.device),
  background: byDefault(flag, USUAL.background),
  singleKeys: byDefault(flag, USUAL.singleKeys),
  drafts: byDefault(flag, USUAL.drafts),
});
export type Preferences = ValueOf<typeof preferencesRequest>;

/** Preferences as they are kept; null where nobody has chosen any. */
export interface StoredPreferences {
  readonly preferences: Preferences | null;
}
