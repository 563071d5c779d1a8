import { gateStateOf, keptGate } from './detect';
import { kind, signal } from './kind';
import type { GateState } from './kind';
import { choice, volts, setUp } from './params';

const isGate = (op: string): boolean => op === 'and' || op === 'or' || op === 'xor';

/** What two inputs of known gateState come to; null where it moves. */
function outcome(op: string, a: GateState, b: GateState): boolean | null {
  if (op === 'and' && (a === 'low' || b === 'low')) return false;
  if (op === 'or' && (a === 'high' || b === 'high')) return true;
  if (a === 'moves' || b === 'moves') return null;
  const [x, y] = [a === 'high', b === 'high'];
  return op === 'and' ? x && y : op === 'or' ? x || y : x !== y;
}

export const logic = kind({
  name: 'logic',
  title: 'Logic',
  does: 'AND, OR and XOR; min and max',
  words: {
    params: { op: 'Operation', thresholdVolts: 'Input threshold', highVolts: 'High level' },
    options: { op: { and: 'AND', or: 'OR', xor: 'XOR', min: 'Min', max: 'Max' } },
  },
  formula:
    'and, or, xor: 0 or highVolts, each input high from thresholdVolts until 0.1 V below it; min, max: of the voltages',
  category: 'between',
  params: {
    op: choice(['and', 'or', 'xor', 'min', 'max']),
    thresholdVolts: setUp(volts(1)),
    highVolts: setUp(volts(5)),
  },
  brief: (p) => (p.op === 'min' || p.op === 'max' ? p.op : p.op.toUpperCase()),
  inputs: () => [signal('a'), signal('b')],
  outputs: () => ['out'],
  timing: {
    gates: ['out'],
  },
  source: {
    remakes: (p) => isGate(p.op),
  },
  memory: (p) => isGate(p.op),
  law(b, p, io) {
    if (p.op === 'min') return { out: b.min(io.in('a'), io.in('b')) };
    if (p.op === 'max') return { out: b.max(io.in('a'), io.in('b')) };
    // While a hand moves the threshold, each gate remembers where it was.
    const gateState = (name: string): GateState =>
      io.turns?.('thresholdVolts') ? 'moves' : gateStateOf(io, name, p.thresholdVolts);
    const known = outcome(p.op, gateState('a'), gateState('b'));
    if (known !== null) return { out: b.constant(known ? p.highVolts : 0) };
    return { out: io.symbol('out', Math.min(0, p.highVolts), Math.max(0, p.highVolts)) };
  },
  kernel(p, wiring) {
    const [a, b, out] = [wiring.input('a'), wiring.input('b'), wiring.output('out')];
    if (p.op === 'min' || p.op === 'max') {
      const pick = p.op === 'min' ? Math.min : Math.max;
      return (from, to) => {
        for (let i = from; i < to; i++) out[i] = pick(a[i] as number, b[i] as number);
      };
    }
    const first = keptGate(wiring, 'first', p.thresholdVolts);
    const second = keptGate(wiring, 'second', p.thresholdVolts);
    return (from, to) => {
      for (let i = from; i < to; i++) {
        first.rises(a[i] as number);
        second.rises(b[i] as number);
        const [x, y] = [first.high, second.high];
        const high = p.op === 'and' ? x && y : p.op === 'or' ? x || y : x !== y;
        out[i] = high ? p.highVolts : 0;
      }
    };
  },
});
