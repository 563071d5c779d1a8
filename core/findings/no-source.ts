import type { GraphInput, GraphModule } from '../graph/graph';
import type { Evidence, FindingRule } from './finding';
import { feedingEnds, inputsNamed } from './paths';

const isSilent = (s: GraphInput): boolean => s.driver.type === 'volts' && s.driver.volts === 0;

/** The signals that multiply the others: where one is missing, nothing is left. */
const factorsOf = (m: GraphModule): GraphInput[] =>
  inputsNamed(
    m,
    (m.kind.stage?.gains ?? []).flatMap((g) => g.controls),
  ).filter((s) => s.spec.role === 'signal');

/** An offset, a bias or a level of its own makes a source of a module that nothing drives. */
function speaks({ graph, bounds }: Evidence, m: GraphModule): boolean {
  const used = graph.wiring.usedOutputs;
  return m.outputs.some((o, i) => {
    const [lo, hi] = bounds.get(m.id)?.outputs[i] ?? [0, 0];
    return used.has(o.socket) && (lo !== 0 || hi !== 0);
  });
}

export const noSource: FindingRule = {
  code: 'no-source',
  title: 'No input',
  why: 'Nothing drives this stage, so everything after it stays at rest. Patch in a source, or give the input a normal.',
  when: 'all signal inputs of a module that feeds a destination (either one of a multiplier), or all inputs of a custom destination or line output, are unpatched with 0 V normals; not where the module puts out a voltage of its own',
  find(evidence) {
    const feeding = feedingEnds(evidence.graph);
    return evidence.graph.modules
      .filter((m) => {
        if (m.kind.category === 'end') return m.inputs.every(isSilent);
        const signals = feeding.has(m) ? m.inputs.filter((s) => s.spec.role === 'signal') : [];
        const dead = signals.every(isSilent) || factorsOf(m).some(isSilent);
        return signals.length > 0 && dead && !speaks(evidence, m);
      })
      .map((m) => ({
        code: 'no-source',
        severity: 'warning' as const,
        at: m.id,
        message: `${m.label} has no input: nothing is patched in.`,
        numbers: {},
      }));
  },
};
