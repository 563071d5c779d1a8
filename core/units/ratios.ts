/** A gain in dB; silence has none. */
export const dbOf = (gain: number): number | null => (gain === 0 ? null : 20 * Math.log10(Math.abs(gain)));

export const gainOf = (db: number): number => 10 ** (db / 20);

/** A gain that is only the rounding of one which crosses nothing. */
export const orNothing = (gain: number): number => (Math.abs(gain) < 1e-12 ? 0 : gain);

/** Octaves count wherever a volt doubles the figure. */
export const countsOctaves = (quantity: string): boolean => ['frequency', 'pitch', 'time', 'rate'].includes(quantity);
