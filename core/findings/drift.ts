import type { GraphModule } from '../graph/graph';
import { showSeconds } from '../units/show';
import { cures, setCure } from './finding';
import type { Cure, FindingRule, Found } from './finding';
import { endInputs, inputNamed, upstreamModules } from './paths';

/** Rates within this of each other count as nominally the same. */
const SAME = 0.05;
/** What two knobs set alike may still differ by. */
const KNOB = 0.01;

/** Moves by itself at a rate that nothing holds; what is made from one module has its one clock. */
function isFree(m: GraphModule): boolean {
  const { kind, params } = m;
  return (
    m.inputs.every((s) => !s.connected) &&
    (kind.source?.free?.(params, () => false) ?? false) &&
    (kind.source?.hertz?.(params) ?? 0) > 0 &&
    !kind.sound?.audible &&
    !kind.source?.draws?.(params)
  );
}

/** One reset by the other, where it has such an input and the other's voltage rises that far. */
function locked(a: GraphModule, b: GraphModule): Cure | null {
  const reset = inputNamed(b, 'reset');
  const output = a.outputs[0]?.socket;
  if (!reset || output === undefined) return null;
  return setCure(`Reset ${b.label} from ${a.label}`, { do: 'plug', cable: { from: output, to: reset.socket } });
}

export const drift: FindingRule = {
  code: 'drift',
  title: 'Free-running drift',
  why: 'Two free-running LFOs never keep exactly the same rate, so a phase relationship that is right now is wrong in a minute. Let one reset the other, or drive both from one.',
  when: 'two free-running sources at the same nominal rate (within 5%), neither reset nor modulated, reach one destination',
  cures: 'resets the second from the first',
  find({ graph }) {
    const told = new Set<string>();
    return endInputs(graph).flatMap((end) => {
      const free = [...upstreamModules(graph, [end])].filter(isFree).sort((a, b) => a.index - b.index);
      return free.flatMap((a, i) =>
        free.slice(i + 1).flatMap((b): Found[] => {
          const [x, y] = [a, b].map((m) => m.kind.source?.hertz?.(m.params) ?? 0) as [number, number];
          const pair = `${a.id} ${b.id}`;
          if (Math.abs(x - y) > SAME * Math.max(x, y) || told.has(pair)) return [];
          told.add(pair);
          const driftSeconds = 0.25 / Math.max(Math.abs(x - y), KNOB * Math.max(x, y));
          return [
            {
              code: 'drift',
              severity: 'note',
              at: end.socket,
              message: `${a.label} and ${b.label} are free-running: after ${showSeconds(driftSeconds)} their phases have drifted by a quarter cycle.`,
              numbers: { driftSeconds },
              cures: cures(locked(a, b), locked(b, a)),
            },
          ];
        }),
      );
    });
  },
};
