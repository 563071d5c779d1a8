/** An exact positive ratio. */
export interface Fraction {
  readonly n: bigint;
  readonly d: bigint;
}

const gcd = (a: bigint, b: bigint): bigint => (b === 0n ? a : gcd(b, a % b));

export function fraction(n: bigint, d: bigint): Fraction {
  const common = gcd(n, d);
  return { n: n / common, d: d / common };
}

/** The fraction that a decimal number's shortest writing says: 0.1 is 1/10. */
export function fractionOf(x: number): Fraction {
  const [mantissa = '0', exponent = '0'] = x.toExponential().split('e');
  const [whole = '0', decimals = ''] = mantissa.split('.');
  const shift = Number(exponent) - decimals.length;
  const digits = BigInt(whole + decimals);
  return shift >= 0 ? fraction(digits * 10n ** BigInt(shift), 1n) : fraction(digits, 10n ** BigInt(-shift));
}

export const times = (a: Fraction, b: Fraction): Fraction => fraction(a.n * b.n, a.d * b.d);
export const over = (a: Fraction, b: Fraction): Fraction => fraction(a.n * b.d, a.d * b.n);

/** The least common multiple of two ratios. */
export function commonMultiple(a: Fraction, b: Fraction): Fraction {
  const lcm = (x: bigint, y: bigint): bigint => (x / gcd(x, y)) * y;
  return fraction(lcm(a.n, b.n), gcd(a.d, b.d));
}

export const toNumber = ({ n, d }: Fraction): number => Number(n) / Number(d);
