import type { Target } from '../../document/targets';
import { buildGraph } from '../../graph/graph';
import { isAffine } from './affine';
import { errorOf, needsTrace } from './errorOf';
import type { Aim } from './errorOf';
import { allowedError } from './met';
import type { Setting } from './setting';
import { MISSING } from './targetError';
import type { TargetError } from './targetError';
import type { Trials } from './trials';

/** What a look at one setting of the knobs tells of every target. */
export interface Look {
  readonly x: Float64Array;
  readonly errors: readonly TargetError[];
  /** The weighted sum of the squared errors. */
  readonly cost: number;
  readonly met: readonly boolean[];
}

export const allMet = ({ met }: Pick<Look, 'met'>): boolean => met.every(Boolean);

/** How a descent weighs what is missing: every residual, or the greater of a target's residuals alone. */
export type Measure = 'residuals' | 'greatest';

/** The share of a target's own movement that an answer must leave. */
const LEAST_MOVEMENT = 0.1;
/** Movement below this is none, volts. */
const STILL = 1e-6;

const reachOf = ({ reached: [lo, hi] }: TargetError): number => hi - lo;

/** The movement that a target itself asks for or allows, volts: Infinity where it says nothing of it. */
function askedSpan(target: Target, { span }: TargetError): number {
  switch (target.want) {
    case 'span':
      return span;
    case undefined:
    case 'range':
      return target.low === null || target.high === null ? (target.low === 'silent' ? 0 : Infinity) : span;
    case 'within':
      return target.low === null || target.high === null ? Infinity : span;
    case 'duty':
      return target.percent <= 0 || target.percent >= 100 ? 0 : Infinity;
    default:
      return Infinity;
  }
}

/** Targets, and the knobs that may turn for them: how far each is from being met, for any setting of the knobs. */
export class Problem {
  private readonly slots = new Map<string, number>();
  private readonly affine: readonly boolean[];
  /** The drives are affine in the knobs, all together. */
  readonly exact: boolean;
  /** Something can only be told by running the patch. */
  readonly traced: boolean;
  /** How far each target moves before anything is turned, volts. */
  private moved: readonly number[] | null = null;

  constructor(
    readonly trials: Trials,
    readonly targets: readonly Target[],
  ) {
    const graph = buildGraph(trials.patch);
    const traced = targets.map((t) => needsTrace(graph, t));
    this.traced = traced.some(Boolean);
    this.affine = targets.map((t, i) => !traced[i] && isAffine(graph, t));
    this.exact = this.affine.every(Boolean);
  }

  look(x: Float64Array, setting: Setting = this.trials.at(x)): Look {
    const errors = this.targets.map((t) => errorOf(t, setting) ?? MISSING);
    const cost = errors.reduce((sum, { error }, i) => sum + (this.targets[i]?.weight ?? 1) * error * error, 0);
    const met = errors.map((e, i) => e.error <= this.allowed(i, e));
    return { x, errors, cost, met };
  }

  /** The error that a target still counts as met with, in its own figure. */
  allowed(index: number, error: TargetError): number {
    return allowedError(this.targets[index] as Target, error, this.affine[index] ?? false);
  }

  /** Whether a setting stops what a target is for: its movement is nearly gone, and the target does not ask for that. */
  stills({ errors }: Look): boolean {
    const moved = this.movedBefore();
    return errors.some((e, i) => {
      const before = Math.min(moved[i] ?? 0, askedSpan(this.targets[i] as Target, e));
      return before > STILL && reachOf(e) < LEAST_MOVEMENT * before;
    });
  }

  /** The share of each target's movement that a setting leaves; 1 where there was none. */
  movementLeft({ errors }: Look): readonly number[] {
    const moved = this.movedBefore();
    return errors.map((e, i) => ((moved[i] ?? 0) > STILL ? reachOf(e) / (moved[i] as number) : 1));
  }

  private movedBefore(): readonly number[] {
    return (this.moved ??= this.look(this.trials.start).errors.map(reachOf));
  }

  /**
   * The residual that a descent makes small.
   *
   * @param aim asks `within` for its whole span, and `steps` for that much margin.
   */
  residual(x: Float64Array, measure: Measure, aim?: Aim): Float64Array {
    const setting = this.trials.at(x);
    const found: number[] = [];
    this.targets.forEach((t, i) => {
      const error = errorOf(t, setting, aim) ?? MISSING;
      const weight = Math.sqrt(t.weight ?? 1);
      if (measure === 'greatest') found[this.slot(`${i}`)] = weight * greatest(error);
      else for (const r of error.residuals) found[this.slot(`${i} ${r.name}`)] = weight * r.volts;
    });
    return Float64Array.from({ length: this.slots.size }, (_, k) => found[k] ?? 0);
  }

  private slot(name: string): number {
    const known = this.slots.get(name);
    if (known !== undefined) return known;
    this.slots.set(name, this.slots.size);
    return this.slots.size - 1;
  }
}

/** The greatest residual, rounded off a little where two are alike, so that a descent does not stick there. */
function greatest({ residuals, error }: TargetError): number {
  if (residuals.length < 2) return error;
  const top = Math.max(...residuals.map((r) => Math.abs(r.volts)));
  if (top === 0) return 0;
  const POWER = 24;
  return top * residuals.reduce((sum, r) => sum + Math.abs(r.volts / top) ** POWER, 0) ** (1 / POWER);
}
