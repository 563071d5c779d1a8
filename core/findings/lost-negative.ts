import { socketAt } from '../document/sockets';
import type { GraphModule } from '../graph/graph';
import type { Observer } from '../simulate/types';
import { showNumber, showVolts } from '../units/show';
import { cures, setCure, watching } from './finding';
import type { Found } from './finding';
import { insertOffset } from './insert';

/** Counts the time below zero. */
class BelowZero implements Observer {
  readonly sockets: readonly string[];
  below = 0;
  count = 0;
  lowest = 0;

  constructor(readonly m: GraphModule) {
    this.sockets = [socketAt(m.id, 'in')];
  }

  block([x]: readonly Float64Array[], count: number): void {
    for (let i = 0; i < count; i++) {
      const v = (x as Float64Array)[i] as number;
      if (v < -1e-9) this.below++;
      if (v < this.lowest) this.lowest = v;
    }
    this.count += count;
  }
}

export const lostNegative = watching<BelowZero>({
  code: 'lost-negative',
  title: 'Negative voltage ignored',
  why: 'This quantizer treats everything below 0 V as 0 V, so all lower notes become one. Offset the voltage up before it and back down after it.',
  when: 'a quantizer that responds only to positive voltage is fed below 0 V',
  cures: 'adds an offset that raises the input above 0 V',
  watch: (graph) =>
    graph.modules.filter((m) => m.kind.stage?.positiveOnly?.(m.params) === true).map((m) => new BelowZero(m)),
  find({ graph, bounds }, watched) {
    return watched.flatMap(({ m, below, count }): Found[] => {
      const index = m.inputs.findIndex((s) => s.spec.name === 'in');
      const [lowestVolts = 0, highestVolts = 0] = bounds.get(m.id)?.inputs[index] ?? [];
      if (below === 0) return [];
      const lostPercent = (100 * below) / count;
      const edits = insertOffset(graph, socketAt(m.id, 'in'), 'Offset', 1, Number((-lowestVolts).toPrecision(6)));
      return [
        {
          code: 'lost-negative',
          severity: 'warning',
          at: socketAt(m.id, 'in'),
          message: `${m.label} ignores its input below 0 V: ${showNumber(lostPercent, 0)}% of the time, down to ${showVolts(lowestVolts)}.`,
          numbers: { lostPercent, lowestVolts },
          wanted: { at: socketAt(m.id, 'in'), quantity: 'volts', low: 0, high: highestVolts - lowestVolts },
          cures: cures(edits.length > 0 ? setCure(`Add a ${showVolts(-lowestVolts)} offset`, ...edits) : null),
        },
      ];
    });
  },
});
