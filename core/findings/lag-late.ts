import { socketAt } from '../document/sockets';
import type { GraphModule } from '../graph/graph';
import { Gate } from '../kinds/detect';
import type { Observer } from '../simulate/types';
import { briefSeconds, showNumber } from '../units/show';
import { cures, setCure, setParam, watching } from './finding';
import type { Cure } from './finding';
import { pitchPaths } from './pitch-paths';
import { median, stepperAt } from './steppers';
import type { Stepper } from './steppers';

const LATE_CENTS = 3;
const LATE_VOLTS = LATE_CENTS / 1200;

/** A change of the note by less than this is none, volts. */
const SAME_NOTE = 1e-6;

/** A glide that is wanted: how far, and in how many samples. */
interface Way {
  readonly volts: number;
  readonly samples: number;
}

/** How far a lag still is from its note when a step ends: at the clock's next edge, else where the note changes. */
class StepEnds implements Observer {
  readonly sockets: readonly string[];
  cents = 0;
  readonly ways: Way[] = [];
  private readonly clock: Gate | null;
  private readonly lengths: number[] = [];
  private last: { readonly input: number; readonly output: number } | null = null;
  /** The sample at which the running step began; null before the first. */
  private since: number | null = null;
  private note = 0;
  private from = 0;
  private k = 0;

  constructor(
    readonly m: GraphModule,
    stepper: Stepper | null,
  ) {
    const clock = stepper?.clock;
    this.clock = clock ? new Gate(clock.spec.threshold ?? 1) : null;
    this.sockets = [socketAt(m.id, 'in'), socketAt(m.id, 'out'), ...(clock ? [clock.socket] : [])];
  }

  block([x, y, clock]: readonly Float64Array[], count: number, k0: number): void {
    for (let i = 0; i < count; i++) {
      const [input, output] = [(x as Float64Array)[i] as number, (y as Float64Array)[i] as number];
      const moved = this.last !== null && Math.abs(input - this.last.input) > SAME_NOTE;
      const begins = this.clock && clock ? this.clock.rises(clock[i] as number) : moved;
      if (begins) {
        this.judge(k0 + i);
        this.since = k0 + i;
        this.from = this.note;
        this.note = input;
      }
      this.last = { input, output };
    }
    this.k = k0 + count;
  }

  private judge(k: number): void {
    if (this.since === null || !this.last) return;
    this.lengths.push(k - this.since);
    this.ways.push({ volts: Math.abs(this.last.input - this.from), samples: k - this.since });
    this.cents = Math.max(this.cents, 1200 * Math.abs(this.last.input - this.last.output));
  }

  /** The last step counts too if the window holds its whole length. */
  done(): void {
    const length = median(this.lengths);
    if (this.since !== null && length !== null && this.k - this.since >= length - 1) {
      this.judge(this.k);
      this.since = null;
    }
  }
}

/** The longest time in which every way is gone to within 3 cents; a linear lag takes it for 10 V. */
function longest(law: unknown, ways: readonly Way[], sampleRate: number): number {
  return ways.reduce((least, { volts, samples }) => {
    if (volts <= LATE_VOLTS) return least;
    const seconds = samples / sampleRate;
    const time = law === 'rc' ? (5 * seconds) / Math.log(volts / LATE_VOLTS) : (10 * seconds) / (volts - LATE_VOLTS);
    return Math.min(least, time);
  }, Infinity);
}

/** Rounded down, so that it still arrives. */
function roundedDown(x: number): number {
  const unit = 10 ** (Math.floor(Math.log10(x)) - 2);
  return Number((Math.floor(x / unit) * unit).toPrecision(3));
}

function shortened(m: GraphModule, time: number): Cure | null {
  const long = ['rise', 'fall', 'minimum'].filter((name) => Number(m.params[name]) > time);
  if (long.length === 0) return null;
  return setCure(`Set slew to ${briefSeconds(time)}`, ...long.map((name) => setParam(m.id, name, time)));
}

export const lagLate = watching<StepEnds>({
  code: 'lag-late',
  title: 'Glide too slow',
  why: 'A glide longer than the step never arrives: the note ends before it is in tune. Shorten the glide or lengthen the step.',
  when: 'a stepped pitch after a slew limiter is still more than 3 cents off its note when a step ends; every step followed by another counts, and the last if the simulation covers its whole length',
  cures: 'sets the longest slew time that ends within 3 cents',
  watch: (graph) =>
    pitchPaths(graph).flatMap((path) =>
      path.stages
        .filter((s) => s.m.kind.timing?.lags !== undefined)
        .map((s) => new StepEnds(s.m, stepperAt(graph, s.input))),
    ),
  find({ graph }, watched) {
    watched.forEach((w) => w.done());
    const worst = new Map<string, StepEnds>();
    for (const w of watched.filter((x) => x.cents > LATE_CENTS)) {
      const known = worst.get(w.m.id);
      if (!known || w.cents > known.cents) worst.set(w.m.id, w);
    }
    return [...worst.values()].map(({ m, cents, ways }) => {
      const time = longest(m.params.law, ways, graph.sampleRate);
      const times = Number.isFinite(time)
        ? [1, 0.98, 0.9, 0.7, 0.5, 0.25, 0.1].map((share) => roundedDown(share * time))
        : [];
      return {
        code: 'lag-late',
        severity: 'warning' as const,
        at: socketAt(m.id, 'out'),
        message: `${m.label} glides too slowly: it is still ${showNumber(cents, 0)} cents off pitch when the step ends.`,
        numbers: { cents },
        cures: cures(...times.map((t) => shortened(m, t)), shortened(m, 0)),
      };
    });
  },
});
