import { seedOf, stream } from '../kinds/random';

/** Figures drawn from a seed: the same for the same seed. */
export class Draws {
  private readonly random: () => number;

  constructor(seed: number, name: string) {
    this.random = stream(seedOf(seed, name));
  }

  /** A number from a lower one on in steps, at most a higher one. */
  number(low: number, high: number, step: number): number {
    const steps = Math.floor((high - low) / step + 1e-9);
    const drawn = low + step * Math.min(steps, Math.floor(this.random() * (steps + 1)));
    return Number(drawn.toPrecision(10));
  }

  /** The same, without what is nearer to 0 than a size. */
  away(low: number, high: number, step: number, least: number): number {
    for (let n = 0; n < 50; n++) {
      const found = this.number(low, high, step);
      if (Math.abs(found) >= least - 1e-9) return found;
    }
    return high;
  }

  whole(low: number, high: number): number {
    return this.number(low, high, 1);
  }

  chance(share: number): boolean {
    return this.random() < share;
  }

  pick<T>(list: readonly T[]): T {
    return list[Math.min(list.length - 1, Math.floor(this.random() * list.length))] as T;
  }

  /** Some of a list in a drawn order; all of it, if no count is given. */
  shuffled<T>(list: readonly T[], count = list.length): T[] {
    const left = [...list];
    return Array.from({ length: Math.min(count, left.length) }, () => {
      const at = Math.min(left.length - 1, Math.floor(this.random() * left.length));
      return left.splice(at, 1)[0] as T;
    });
  }
}
