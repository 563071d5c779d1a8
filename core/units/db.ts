/** A gain in dB; silence has none. */
export const dbOf = (gain: number): number | null => (gain === 0 ? null : 20 * Math.log10(Math.abs(gain)));

export const gainOf = (db: number): number => 10 ** (db / 20);
