/** Each sample's share of the way for a lag that is 99.3 % there after `seconds` (τ = seconds/5); 0 s: at once. */
export const lagShare = (seconds: number, sampleRate: number): number =>
  seconds === 0 ? 1 : -Math.expm1(-5 / (seconds * sampleRate));
