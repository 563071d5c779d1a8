import type { GraphModule } from '../graph/graph';
import type { Observer } from '../simulate/types';
import { briefSeconds, showNumber } from '../units/show';
import { setParam, watching } from './finding';
import { pitchPaths } from './pitch-paths';

const LATE_CENTS = 3;

/** How far a lag still is from its note when the next note comes. */
class StepEnds implements Observer {
  readonly sockets: readonly string[];
  cents = 0;
  shortest = Infinity;
  private last: { readonly input: number; readonly output: number } | null = null;
  private since = 0;

  constructor(readonly m: GraphModule) {
    this.sockets = [`${m.id}.in`, `${m.id}.out`];
  }

  block([x, y]: readonly Float64Array[], count: number, k0: number): void {
    for (let i = 0; i < count; i++) {
      const [input, output] = [(x as Float64Array)[i] as number, (y as Float64Array)[i] as number];
      if (this.last && Math.abs(input - this.last.input) > 1e-6) {
        this.cents = Math.max(this.cents, 1200 * Math.abs(this.last.input - this.last.output));
        this.shortest = Math.min(this.shortest, k0 + i - this.since);
        this.since = k0 + i;
      }
      this.last = { input, output };
    }
  }
}

export const lagLate = watching<StepEnds>({
  code: 'lag-late',
  why: 'A glide that is longer than the step never arrives, and the note is left before it is in tune. Shorten the lag or lengthen the step.',
  when: 'a stepped pitch behind a lag is more than 3 cents off its note when the step ends',
  cures: 'a lag time that ends in time',
  watch: (graph) =>
    pitchPaths(graph).flatMap((path) =>
      path.stages.filter((s) => s.m.kind.name === 'slew').map((s) => new StepEnds(s.m)),
    ),
  find({ graph }, watched) {
    return watched
      .filter((w) => w.cents > LATE_CENTS)
      .map(({ m, cents, shortest }) => {
        // A linear lag is there after its way; an rc lag halves what is left every ln2·T/5.
        const seconds = shortest / graph.sampleRate;
        const share = m.params.law === 'rc' ? 5 / Math.log(Math.max(2, (cents / LATE_CENTS) * Math.E)) : 1;
        const time = Number((0.9 * seconds * share * 0.9).toPrecision(3));
        const long = ['rise', 'fall'].filter((way) => Number(m.params[way]) > time);
        return {
          code: 'lag-late',
          severity: 'warning' as const,
          at: `${m.id}.out`,
          message: `${m.label} glides too long: ${showNumber(cents, 0)} cents off the note when the step ends.`,
          numbers: { cents },
          ...(long.length > 0 && {
            cure: { label: `Lag to ${briefSeconds(time)}`, edits: long.map((way) => setParam(m.id, way, time)) },
          }),
        };
      });
  },
});
