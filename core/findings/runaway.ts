import { inSentence, paramLabel } from '../kinds/knobs';
import { socketAt } from '../document/sockets';
import type { Graph, GraphInput, GraphModule } from '../graph/graph';
import { dbOf } from '../units/ratios';
import { showNumber } from '../units/show';
import { cures, setCure, setParam } from './finding';
import type { Cure, Evidence, FindingRule, Found } from './finding';
import { gainThrough, sourceOf } from './paths';

/** A stage's gain for a small, slow signal from one input to one output. */
function smallGain(m: GraphModule, input: GraphInput, output: string, volts: (s: GraphInput) => number): number {
  const loudest = m.kind.sound?.loudest?.(m.params, input.spec.name, output) ?? null;
  if (loudest !== null) return loudest;
  return gainThrough(m, input, output, volts);
}

/** What comes back round a loop of a voltage sent into its delayed cables. */
function loopGain(graph: Graph, members: readonly GraphModule[], mean: (s: GraphInput) => number): number {
  const moved = new Map<string, number>();
  const isDelayed = (s: GraphInput): boolean => s.driver.type === 'output' && s.driver.delayed;
  for (const m of members) {
    for (const o of m.outputs) {
      let sum = 0;
      for (const s of m.inputs) {
        const from = sourceOf(graph, s)?.socket;
        const fed = isDelayed(s) ? 1 : (moved.get(from ?? '') ?? 0);
        if (fed !== 0) sum += fed * smallGain(m, s, o.name, mean);
      }
      moved.set(o.socket, sum);
    }
  }
  const back = members.flatMap((m) =>
    m.inputs.filter(isDelayed).map((s) => moved.get(sourceOf(graph, s)?.socket ?? '') ?? 0),
  );
  return back.reduce((most, g) => Math.max(most, Math.abs(g)), 0);
}

/** Gains this little above 1 are the arithmetic's, not the loop's. */
const ABOVE = 1 + 1e-9;
/** What a cure turns a loop's gain down to. */
const SAFE = 0.95;
/** How many points between rest and the present state the gain is evaluated at. */
const PLACES = 10;

type Volts = (s: GraphInput) => number;

/** Operating points from the loop at rest to where the simulation left it; what comes from outside at its extremes. */
function pointsOf({ simulation }: Evidence, members: readonly GraphModule[]): Volts[] {
  const inside = new Set(members.map((m) => m.index));
  const fromInside = (s: GraphInput): boolean => s.driver.type === 'output' && inside.has(s.driver.module);
  return (['mean', 'min', 'max'] as const).flatMap((which) =>
    Array.from({ length: PLACES + 1 }, (_, i): Volts => (s) => {
      if (s.driver.type === 'volts') return s.driver.volts;
      const seen = simulation?.inputs.get(s.socket)?.[which] ?? 0;
      return fromInside(s) ? (seen * i) / PLACES : seen;
    }),
  );
}

function found(at: string, label: string, gain: number, cures: readonly Cure[]): Found {
  const loopDb = dbOf(gain) ?? -Infinity;
  return {
    code: 'runaway',
    movesWrongly: true,
    severity: 'warning',
    at,
    message: `The feedback loop through ${label} gains ${showNumber(loopDb, 1)} dB on each pass and will build up until it clips. Start quiet.`,
    numbers: { loopDb },
    cures,
  };
}

/** An amount on the way round, turned down until less comes back than was sent. */
function turnedDown(members: readonly GraphModule[], gain: number): Cure[] {
  const inside = new Set(members.map((m) => m.index));
  return members.flatMap((m) =>
    m.inputs.flatMap((s): Cure[] => {
      const { amount } = s.spec;
      if (amount === undefined || s.driver.type !== 'output' || !inside.has(s.driver.module)) return [];
      const value = Number(((Number(m.params[amount]) * SAFE) / gain).toPrecision(4));
      return value === 0
        ? []
        : [
            setCure(
              `Set ${m.label} ${inSentence(paramLabel(amount, m.kind.params[amount]))} to ${showNumber(value, 3)}`,
              setParam(m.id, amount, value),
            ),
          ];
    }),
  );
}

function ownFeedback({ bounds }: Evidence, m: GraphModule): Found[] {
  const feedback = m.kind.sound?.feedback;
  if (!feedback) return [];
  const { param, input, fullVolts, most } = feedback;
  const [, high] = bounds.get(m.id)?.inputs[m.inputs.findIndex((s) => s.spec.name === input)] ?? [0, 0];
  const gain = Math.min(most, Number(m.params[param]) + high / fullVolts);
  if (gain <= ABOVE) return [];
  const value = Number((SAFE - high / fullVolts).toPrecision(4));
  const cure =
    value >= 0 ? setCure(`Set feedback to ${showNumber(100 * value, 0)}%`, setParam(m.id, param, value)) : null;
  return [found(socketAt(m.id, input), m.label, gain, cures(cure))];
}

export const runaway: FindingRule = {
  code: 'runaway',
  title: 'Runaway feedback',
  why: 'A loop with more than unity gain builds up until the rails stop it. Turn the return below unity, and start with the listening level low.',
  when: 'a feedback loop’s small-signal gain is above 1 anywhere between rest and its operating point, also once it has latched; a delay’s own feedback counts',
  cures: 'sets the gain that leaves 0.95',
  find(evidence) {
    const { graph } = evidence;
    const alone = graph.modules.flatMap((m) => ownFeedback(evidence, m));
    const loops = graph.groups
      .filter((g) => g.loop)
      .flatMap((g): Found[] => {
        const members = g.modules.map((i) => graph.modules[i] as GraphModule);
        const gains = pointsOf(evidence, members).map((volts) => loopGain(graph, members, volts));
        const gain = Math.max(...gains.filter(Number.isFinite), 0);
        const [first] = [...members].sort((a, b) => a.index - b.index);
        if (gain <= ABOVE || !first) return [];
        return [found(first.outputs[0]?.socket ?? first.id, first.label, gain, turnedDown(members, gain))];
      });
    return [...alone, ...loops];
  },
};
