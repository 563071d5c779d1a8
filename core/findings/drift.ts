import type { GraphModule } from '../graph/graph';
import { showSeconds } from '../units/show';
import type { Finding, FindingRule } from './finding';
import { endInputs, upstreamModules } from './paths';

/** Rates within this of each other count as nominally the same. */
const SAME = 0.05;
/** What two knobs set alike may still differ by. */
const KNOB = 0.01;

const isFree = (m: GraphModule): boolean =>
  m.kind.name === 'lfo' &&
  m.inputs.every((s) => !s.connected) &&
  m.params.shape !== 'stepped' &&
  m.params.shape !== 'smooth';

export const drift: FindingRule = {
  code: 'drift',
  why: 'Two slow oscillators of their own never keep the same rate for long, so a phase between them that is right now is wrong in a minute. Let one reset the other, or drive both from one.',
  when: 'two slow oscillators of the same nominal rate (within 5 %), neither reset nor modulated, reach one end',
  cures: 'resets the second by the first',
  find({ graph }) {
    const told = new Set<string>();
    return endInputs(graph).flatMap((end) => {
      const free = [...upstreamModules(graph, [end])].filter(isFree).sort((a, b) => a.index - b.index);
      return free.flatMap((a, i) =>
        free.slice(i + 1).flatMap((b): Finding[] => {
          const [x, y] = [Number(a.params.rateHz), Number(b.params.rateHz)];
          const pair = `${a.id} ${b.id}`;
          if (Math.abs(x - y) > SAME * Math.max(x, y) || told.has(pair)) return [];
          told.add(pair);
          const driftSeconds = 0.25 / Math.max(Math.abs(x - y), KNOB * Math.max(x, y));
          return [
            {
              code: 'drift',
              severity: 'note',
              at: end.socket,
              message: `${a.label} and ${b.label} run free: their phases are a quarter cycle apart from where they began after ${showSeconds(driftSeconds)}.`,
              numbers: { driftSeconds },
              cure: {
                label: `Reset ${b.label} by ${a.label}`,
                edits: [{ op: 'plug', cable: { from: `${a.id}.out`, to: `${b.id}.reset` } }],
              },
            },
          ];
        }),
      );
    });
  },
};
