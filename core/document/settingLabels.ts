import type { Settings } from './types';

/** What the settings of a simulation are called, on screen and in lists of differences. */
export const SETTING_LABELS: Readonly<Record<keyof Settings, string>> = {
  duration: 'Simulation length',
  sampleRate: 'Sample rate',
  railVolts: 'Supply rails (±)',
  loading: 'Loading',
  bpm: 'Tempo',
  seed: 'Random seed',
};
