/** The longest that a knob which is not linear stands still while a hand turns it, seconds. */
const STEP_SECONDS = 0.001;

/** The same in samples. */
export const stepAt = (sampleRate: number): number => Math.max(1, Math.floor(STEP_SECONDS * sampleRate));

/** The moment of the n-th step at which its settings are taken, in samples: all that hangs on them takes the same. */
export const middleOf = (n: number, step: number): number => n * step + (step - 1) / 2;
