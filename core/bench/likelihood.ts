/** Share of readings that are slips of the pen, and how far those lie, in sigmas. */
const SLIPS = 0.02;
const SLIP_SIGMAS = 10;

/** Log likelihood of a reading that is off by `r` where `sigma` is usual: Gaussian, with heavy tails. */
export function logLikelihood(r: number, sigma: number): number {
  const normal = Math.exp(-((r / sigma) ** 2) / 2) / (sigma * Math.sqrt(2 * Math.PI));
  const width = SLIP_SIGMAS * sigma;
  const slip = Math.exp(-Math.abs(r) / width) / (2 * width);
  // Further out than a double reaches, the slip alone counts: straight in r.
  return normal + slip > 0
    ? Math.log((1 - SLIPS) * normal + SLIPS * slip)
    : Math.log(SLIPS / (2 * width)) - Math.abs(r) / width;
}

/** Probabilities from scores. */
export function softmax(scores: readonly number[]): number[] {
  const most = Math.max(...scores);
  const weights = scores.map((s) => Math.exp(s - most));
  const sum = weights.reduce((a, b) => a + b, 0);
  return weights.map((w) => w / sum);
}

/**
 * How many bits a measurement is expected to tell between hypotheses: their entropy less what is left of it, by the overlap
 * of Gaussians of one sigma (a lower bound; Kolchinsky and Tracey 2017).
 */
export function bitsOf(probabilities: readonly number[], values: readonly number[], sigma: number): number {
  return probabilities.reduce((bits, p, i) => {
    if (p === 0) return bits;
    const mixed = probabilities.reduce((sum, q, j) => {
      const apart = ((values[i] as number) - (values[j] as number)) / sigma;
      return sum + q * Math.exp(-(apart ** 2) / 8);
    }, 0);
    return bits - p * Math.log2(mixed);
  }, 0);
}
