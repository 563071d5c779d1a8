/** What a solver may spend: a count of looks, so that answers do not hang on the machine, and a last time limit. */
export interface BudgetOptions {
  /** Looks at settings, at most. */
  readonly looks: number;
  /** The time after which it ends with the best so far, seconds. */
  readonly seconds: number;
  /** Told now and then how much of it is used, 0..1. */
  readonly progress?: (share: number) => void;
}

/** Looks between two reports of progress. */
const REPORT = 32;

/** One budget for a whole question: the search, what stands in the way, and what would help. */
export class Budget {
  private used = 0;
  private ranOut = false;
  private readonly ends: number;

  constructor(private readonly options: BudgetOptions) {
    this.ends = performance.now() + 1000 * options.seconds;
  }

  /** Counts one look. */
  look(): void {
    this.used++;
    if (this.used % REPORT === 0) this.options.progress?.(Math.min(1, this.used / this.options.looks));
  }

  get looks(): number {
    return this.used;
  }

  /** Nothing is left. */
  get spent(): boolean {
    return this.isLate || this.used >= this.options.looks;
  }

  /** The time limit ended something: the answer is the best so far. */
  get isLate(): boolean {
    if (!this.ranOut && performance.now() > this.ends) this.ranOut = true;
    return this.ranOut;
  }

  /** A part of what is left: a limit on the looks from now on. */
  allow(looks: number): Allowance {
    const end = this.used + looks;
    return { isSpent: () => this.spent || this.used >= end };
  }
}

export interface Allowance {
  isSpent(): boolean;
}
