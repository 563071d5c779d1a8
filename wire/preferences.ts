import { byDefault, choice, flag, list, number, record, text } from '../core/document/fields';
import type { ValueOf } from '../core/document/fields';
import { savedSearch } from './requests';
import { GAINS, PITCHES, POINTERS, PREFERENCE_LIMITS, THEMES, USUAL } from './usual';

/** What one chooses once, kept with the library, as the server checks it. */

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
  searches: byDefault(list(savedSearch, 100), USUAL.searches),
});
export type Preferences = ValueOf<typeof preferencesRequest>;

/** Preferences as they are kept; null where nobody has chosen any. */
export interface StoredPreferences {
  readonly preferences: Preferences | null;
}
