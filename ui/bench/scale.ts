/** Volts for full scale of an input, as it was found against a known voltage. */
export interface InputScale {
  readonly volts: number;
  /** No constant voltage comes through: only shapes and peak to peak can be told. */
  readonly acCoupled: boolean;
}

/** A constant voltage below this, of full scale, is none: an input that blocks it shows its noise alone. */
const NO_DC = 0.003;

const spanOf = (samples: ArrayLike<number>): { mean: number; low: number; high: number } => {
  let [sum, low, high] = [0, Infinity, -Infinity];
  for (let k = 0; k < samples.length; k++) {
    const v = samples[k] as number;
    sum += v;
    [low, high] = [Math.min(low, v), Math.max(high, v)];
  }
  return { mean: sum / Math.max(1, samples.length), low, high };
};

/** A voltage that stands swings by less than this, of its mean. */
const STANDS = 0.1;

/** What a known constant voltage says of an input; `blocked` where none comes through, `moves` where it does not stand. */
export function scaleByDc(samples: ArrayLike<number>, knownVolts: number): InputScale | 'blocked' | 'moves' {
  const { mean, low, high } = spanOf(samples);
  if (Math.abs(mean) < Math.max(NO_DC, STANDS * (high - low))) return 'blocked';
  if (high - low > STANDS * Math.abs(mean) + NO_DC) return 'moves';
  return { volts: knownVolts / mean, acCoupled: false };
}

/** What a known peak to peak says of an input that blocks a constant voltage; null where nothing moves. */
export function scaleByPeaks(samples: ArrayLike<number>, knownVolts: number): InputScale | null {
  const { low, high } = spanOf(samples);
  return high - low < NO_DC ? null : { volts: knownVolts / (high - low), acCoupled: true };
}

const key = (device: string): string => `fenvo.input ${device}`;

/** The scale that was found of an input before, in this browser. */
export function keptScale(device: string): InputScale | null {
  try {
    return JSON.parse(localStorage.getItem(key(device)) ?? 'null') as InputScale | null;
  } catch {
    return null;
  }
}

export function keepScale(device: string, scale: InputScale): void {
  try {
    localStorage.setItem(key(device), JSON.stringify(scale));
  } catch {
    // A browser that keeps nothing asks again.
  }
}
