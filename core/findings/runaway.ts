import type { Graph, GraphInput, GraphModule } from '../graph/graph';
import { dbOf } from '../units/db';
import { showNumber } from '../units/show';
import type { Finding, FindingRule } from './finding';
import { gainThrough, sourceOf } from './paths';

/** A stage's gain for a small, slow signal from one input to one output. */
function smallGain(m: GraphModule, input: GraphInput, output: string, volts: (s: GraphInput) => number): number {
  const p = m.params;
  if (m.kind.name === 'delay' && input.spec.name === 'in') {
    const f = Number(p.feedbackAmount);
    return f < 1 ? 1 - Number(p.mix) + Number(p.mix) / (1 - f) : Infinity;
  }
  if (m.kind.name === 'filter' && input.spec.name === 'in') {
    // At its loudest frequency: the resonance, or the pass band.
    return Math.max(1, output === 'bandpass' ? 1 : 1 / (2 * (1 - 0.995 * Number(p.resonance))));
  }
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

function finding(at: string, label: string, gain: number): Finding {
  const loopDb = dbOf(gain) ?? -Infinity;
  return {
    code: 'runaway',
    severity: 'warning',
    at,
    message: `The loop through ${label} grows by ${showNumber(loopDb, 1)} dB each time round, until something clips. Start quiet.`,
    numbers: { loopDb },
  };
}

export const runaway: FindingRule = {
  code: 'runaway',
  why: 'A loop that gives back more than it gets grows until the rails stop it. Turn the return down below unity, and start with the listening level low.',
  when: 'a loop’s small-signal gain is above 1; a delay’s own feedback counts',
  find({ graph, bounds, simulation }) {
    const mean = (s: GraphInput): number =>
      simulation?.inputs.get(s.socket)?.mean ?? (s.driver.type === 'volts' ? s.driver.volts : 0);
    const delays = graph.modules
      .filter((m) => m.kind.name === 'delay')
      .flatMap((m): Finding[] => {
        const [, high] = bounds.get(m.id)?.inputs[m.inputs.findIndex((s) => s.spec.name === 'feedback')] ?? [0, 0];
        const gain = Math.min(1.1, Number(m.params.feedbackAmount) + high / 10);
        return gain > 1 ? [finding(`${m.id}.feedback`, m.label, gain)] : [];
      });
    const loops = graph.groups
      .filter((g) => g.loop)
      .flatMap((g): Finding[] => {
        const members = g.modules.map((i) => graph.modules[i] as GraphModule);
        const gain = loopGain(graph, members, mean);
        const [first] = [...members].sort((a, b) => a.index - b.index);
        return gain > 1 + 1e-9 && Number.isFinite(gain) && first
          ? [finding(first.outputs[0]?.socket ?? first.id, first.label, gain)]
          : [];
      });
    return [...delays, ...loops];
  },
};
