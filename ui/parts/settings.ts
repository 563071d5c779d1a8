import { createStore } from 'zustand';
import type { KeyTuning } from '@/core/formats/keyTuning';
import { GAINS, PITCHES, POINTERS, THEMES, USUAL } from '@/wire/usual';
import type { Preferences } from '@/wire/preferences';

/** What this browser keeps of a person's choices; preferences are kept with the library, too. */
interface Kept extends Preferences {
  /** The tour: not taken yet, running, or done. */
  readonly guide: 'new' | 'on' | 'off';
  /** What Fenvo is and does stands over the patches. */
  readonly welcome: boolean;
  /** Which parts of panels are open. */
  readonly sections: Readonly<Record<string, boolean>>;
  /** Has read what to care for before the first sound. */
  readonly cared: boolean;
  /** Exercises of the ear are asked, too. */
  readonly byEar: boolean;
  /** The rack's modules as they were measured, not as they are meant. */
  readonly asMeasured: boolean;
  /** What the keyboard's keys play; null for equal semitones. */
  readonly keyTuning: KeyTuning | null;
  /** Until then nobody is reminded of a backup, ISO date; empty: until it is due. */
  readonly backupLater: string;
}

const KEY = 'fenvo.settings';
const start: Kept = {
  ...USUAL,
  guide: 'new',
  welcome: true,
  sections: {},
  cared: false,
  byEar: false,
  asMeasured: false,
  keyTuning: null,
  backupLater: '',
};

/** What of a kept value is true or false, by name. */
function flags(x: unknown): Record<string, boolean> {
  if (typeof x !== 'object' || x === null) return {};
  return Object.fromEntries(Object.entries(x).filter(([, v]) => typeof v === 'boolean')) as Record<string, boolean>;
}

const CHOICES: Partial<Record<string, readonly unknown[]>> = {
  theme: THEMES,
  pitches: PITCHES,
  gains: GAINS,
  pointers: POINTERS,
};

const isSearch = (x: unknown): boolean => {
  const { name, words, tags, only } = (x ?? {}) as Partial<Record<string, unknown>>;
  return typeof name === 'string' && typeof words === 'string' && Array.isArray(tags) && Array.isArray(only);
};

const isTuning = (x: unknown): x is KeyTuning => {
  const { name, notes } = (x ?? {}) as Partial<Record<string, unknown>>;
  const isNote = (note: unknown): boolean => note === null || Number.isFinite(note);
  return typeof name === 'string' && Array.isArray(notes) && notes.length === 128 && notes.every(isNote);
};

/** Preferences as far as they are what they can be. */
function preferencesIn(kept: Partial<Record<string, unknown>>): Preferences {
  const sound = Object.entries(USUAL).map(([name, usual]) => {
    const value = kept[name];
    const can =
      typeof value === typeof usual &&
      (!Array.isArray(usual) || (Array.isArray(value) && value.every(isSearch))) &&
      (CHOICES[name]?.includes(value) ?? true);
    return [name, can ? value : usual];
  });
  return Object.fromEntries(sound) as Preferences;
}

/** The theme that an earlier version kept by itself. */
const themeBefore = (): string | null => localStorage.getItem('mui-mode');

function read(): Kept {
  try {
    const kept = JSON.parse(localStorage.getItem(KEY) ?? '{}') as Partial<Record<keyof Kept, unknown>>;
    return {
      ...preferencesIn({ theme: themeBefore(), ...kept }),
      guide: kept.guide === 'on' || kept.guide === 'off' ? kept.guide : 'new',
      welcome: kept.welcome !== false,
      sections: flags(kept.sections),
      cared: kept.cared === true,
      byEar: kept.byEar === true,
      asMeasured: kept.asMeasured === true,
      keyTuning: isTuning(kept.keyTuning) ? kept.keyTuning : null,
      backupLater: typeof kept.backupLater === 'string' ? kept.backupLater : '',
    };
  } catch {
    return start;
  }
}

export const settings = createStore<Kept>(() => (typeof window === 'undefined' ? start : read()));

if (typeof window !== 'undefined')
  // Another tab chose something, or the browser forgot it all.
  window.addEventListener('storage', ({ key }) => {
    if (key === KEY || key === null) settings.setState(read());
  });

export function setSetting<K extends keyof Kept>(key: K, value: Kept[K]): void {
  settings.setState({ [key]: value });
  keepSettings();
}

/** Keeps all choices as they are now. */
export function keepSettings(): void {
  try {
    localStorage.setItem(KEY, JSON.stringify(settings.getState()));
  } catch {
    // A browser that keeps nothing asks again next time.
  }
}
