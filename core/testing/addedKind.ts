import { kind, never, signal } from '../kinds/kind';
import { number, setUp, volts } from '../kinds/params';

/** A kind as somebody would add it: one file. It doubles by default, and offsets. */
export const doubler = kind({
  name: 'doubler',
  title: 'Doubler',
  does: 'makes twice as much of it',
  words: { params: { times: 'Times', lift: 'Offset', fullVolts: 'Full-scale CV' } },
  formula: 'out = times·in + lift',
  category: 'between',
  panel: { starts: { lift: 1 } },
  params: { times: number(2, -4, 4), lift: volts(0), fullVolts: setUp(number(8, 1, 10, 'V')) },
  brief: (p) => `${p.times} times`,
  inputs: () => [signal('in', 0, 'times')],
  outputs: () => ['out'],
  memory: never,
  law: (b, p, io) => ({ out: b.scale(io.in('in'), p.times, p.lift) }),
  ends: [
    {
      socket: 'in',
      sockets: ['in'],
      quantity: 'position',
      unit: () => '%',
      always: false,
      says: 'all of it at its full voltage',
      drive: (_b, _p, io) => io.in('in'),
      value: (p, drive) => (100 * drive) / p.fullVolts,
      window: (p) => [0, p.fullVolts],
    },
  ],
});
