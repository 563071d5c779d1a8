import { stream } from '../kinds/random';
import { wantOf } from '../document/wants';
import type { Target } from '../document/wants';
import type { Bench } from './bench';
import type { Setting } from './setting';
import { missOf, needsTrace } from './miss';
import type { Miss } from './part';
import { driveFor } from '../answers/drive';
import { placeOfTarget } from '../graph/place';

/** What is allowed of a span where drives are not straight lines of the knobs. */
const SHARE = 1e-3;
const ROUNDING = 1e-9;

/** What a look at one setting of the knobs tells of every target. */
export interface Look {
  readonly x: Float64Array;
  readonly errors: readonly Miss[];
  /** The weighted sum of the squared errors. */
  readonly cost: number;
  readonly met: readonly boolean[];
}

/** How a descent weighs what is missing: every part, or the greater of a target's parts alone. */
export type Measure = 'parts' | 'greatest';

/** Targets on a bench: how far each is from being met, for any setting of the knobs. */
export class Job {
  private readonly slots = new Map<string, number>();
  /** The ends of all drives are straight lines of the knobs, all together. */
  readonly exact: boolean;
  readonly traced: boolean;

  constructor(
    readonly bench: Bench,
    readonly targets: readonly Target[],
  ) {
    this.traced = targets.some(needsTrace);
    this.exact = this.isStraight();
  }

  look(x: Float64Array, setting: Setting = this.bench.at(x)): Look {
    const errors = this.targets.map((t) => missOf(t, setting) ?? MISSING);
    const cost = errors.reduce((sum, { error }, i) => sum + (this.targets[i]?.weight ?? 1) * error * error, 0);
    const met = errors.map((e, i) => e.error <= this.allowed(this.targets[i] as Target, e));
    return { x, errors, cost, met };
  }

  /** The error that a target still counts as met with, in its own figure. */
  allowed(target: Target, { span, parts }: Miss): number {
    switch (wantOf(target)) {
      case 'opposite':
      case 'same':
        return parts.some((p) => p.name.startsWith('lacks') && p.volts > ROUNDING) ? 0 : SHARE * span;
      case 'steps':
        return ROUNDING;
      case 'duty':
        return 0.1;
      case 'fall':
        return 0.01 * span;
      case 'like':
        return 0.03;
      default:
        return this.exact ? ROUNDING * (1 + span) : Math.max(ROUNDING, SHARE * span);
    }
  }

  /**
   * The residual that a descent makes small.
   *
   * @param widen asks `within` for its whole span, and `steps` for so much margin.
   */
  residual(x: Float64Array, measure: Measure, widen: number | null = null): Float64Array {
    const setting = this.bench.at(x);
    const found: number[] = [];
    this.targets.forEach((t, i) => {
      const error = missOf(widened(t, widen), setting) ?? MISSING;
      const weight = Math.sqrt(t.weight ?? 1);
      if (measure === 'greatest') found[this.slot(`${i}`)] = weight * soft(error);
      else for (const p of error.parts) found[this.slot(`${i} ${p.name}`)] = weight * p.volts;
      if (widen !== null && t.want === 'steps')
        found[this.slot(`${i} margin`)] = Math.max(0, widen - (error.margin ?? 0));
    });
    return Float64Array.from({ length: this.slots.size }, (_, k) => found[k] ?? 0);
  }

  private slot(name: string): number {
    const known = this.slots.get(name);
    if (known !== undefined) return known;
    this.slots.set(name, this.slots.size);
    return this.slots.size - 1;
  }

  /** Seeded points between which everything is a straight line, or is not. */
  private isStraight(): boolean {
    const random = stream(1);
    const draw = (): Float64Array => Float64Array.from(this.bench.knobs, () => 0.02 + 0.96 * random());
    const lines = (x: Float64Array): Map<string, number> | null => this.lines(this.bench.at(x));
    for (let n = 0; n < 4; n++) {
      const [a, b] = [draw(), draw()];
      // A look takes its time where there is a loop: the first that is bent is enough.
      const fa = lines(a);
      const fb = fa && lines(b);
      const fm = fb && lines(a.map((v, i) => (v + (b[i] as number)) / 2));
      if (!fa || !fb || !fm) return false;
      for (const name of new Set([...fa.keys(), ...fb.keys(), ...fm.keys()])) {
        const [va, vb, vm] = [fa, fb, fm].map((f) => f.get(name) ?? 0) as [number, number, number];
        if (Math.abs(vm - (va + vb) / 2) > 1e-9 * (1 + Math.abs(va) + Math.abs(vb))) return false;
      }
    }
    return true;
  }

  /** What must be straight lines: what each source adds to each drive, and the drives that are wanted. Null: it is bent. */
  private lines(setting: Setting): Map<string, number> | null {
    const lines = new Map<string, number>();
    for (const [i, t] of this.targets.entries()) {
      const place = placeOfTarget(setting.graph, t);
      if (!place) continue;
      const { c, atoms, ks } = setting.value(place);
      lines.set(`${i}`, c);
      for (const [k, atom] of atoms.entries()) {
        if (atom.op !== 'leaf') return null;
        lines.set(`${i} ${atom.key}`, ks[k] as number);
      }
      const m = setting.graph.modules[place.module];
      for (const name of ['low', 'high', 'value', 'centre'] as const) {
        const figure = (t as Partial<Record<typeof name, unknown>>)[name];
        if (typeof figure === 'number' && m && place.at.is === 'end' && 'quantity' in t && t.quantity !== 'volts')
          lines.set(`${i} ${name}`, driveFor(place.at.spec, m.params, figure));
      }
    }
    return lines;
  }
}

const MISSING: Miss = { error: Infinity, span: 0, reached: [0, 0], parts: [] };

/** The greater of the parts, rounded off a little where two are alike, so that a descent does not stick there. */
function soft({ parts, error }: Miss): number {
  if (parts.length < 2) return error;
  const top = Math.max(...parts.map((p) => Math.abs(p.volts)));
  if (top === 0) return 0;
  const POWER = 24;
  return top * parts.reduce((sum, p) => sum + Math.abs(p.volts / top) ** POWER, 0) ** (1 / POWER);
}

/** `within` at its widest: the whole of its range. */
const widened = (t: Target, widen: number | null): Target =>
  widen !== null && t.want === 'within' ? { ...t, want: 'range' } : t;
