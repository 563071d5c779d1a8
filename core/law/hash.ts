const double = new Float64Array(1);
const halves = new Int32Array(double.buffer);

const rotated = (x: number, bits: number): number => (x << bits) | (x >>> (32 - bits));

/** The last mixing of a lane, so that every bit of it hangs on all. */
function finished(x: number): number {
  let h = x ^ (x >>> 16);
  h = Math.imul(h, 0x85ebca6b);
  h = Math.imul(h ^ (h >>> 13), 0xc2b2ae35);
  return h ^ (h >>> 16);
}

/**
 * A 53-bit hash of numbers and texts in their order, in two lanes mixed as Appleby's MurmurHash3 does: the same for the
 * same, whatever was hashed before.
 */
export class Hash {
  private a = 0x3c6ef372;
  private b = 0x1b873593;

  private word(w: number): void {
    this.a =
      (Math.imul(rotated(this.a ^ Math.imul(rotated(Math.imul(w, 0xcc9e2d51), 15), 0x1b873593), 13), 5) + 0xe6546b64) |
      0;
    this.b =
      (Math.imul(rotated(this.b ^ Math.imul(rotated(Math.imul(w, 0x239b961b), 16), 0xab0e9789), 17), 5) + 0x561ccd1b) |
      0;
  }

  /** By its bits; the two zeros are one. */
  number(x: number): this {
    double[0] = x + 0;
    this.word(halves[0] as number);
    this.word(halves[1] as number);
    return this;
  }

  text(s: string): this {
    this.word(s.length);
    for (let i = 0; i < s.length; i++) this.word(s.charCodeAt(i));
    return this;
  }

  /** Anything that a document holds. */
  value(x: unknown): this {
    if (typeof x === 'number') return this.number(x);
    return this.text(typeof x === 'string' ? x : (JSON.stringify(x) ?? ''));
  }

  get sum(): number {
    return 4294967296 * (2097151 & finished(this.b)) + (finished(this.a) >>> 0);
  }
}
