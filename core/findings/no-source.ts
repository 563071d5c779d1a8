import type { GraphInput } from '../graph/graph';
import type { FindingRule } from './finding';
import { feedingEnds } from './paths';

const isSilent = (s: GraphInput): boolean => s.driver.type === 'volts' && s.driver.volts === 0;

export const noSource: FindingRule = {
  code: 'no-source',
  why: 'Nothing drives this stage, so all behind it stays where it rests. Plug a source into it, or give the input a normal.',
  when: 'all signal inputs of a module that feeds an end, or all inputs of a parameter or line output, are unplugged and their normals are 0 V',
  find({ graph }) {
    const feeding = feedingEnds(graph);
    return graph.modules
      .filter((m) => {
        const wanted =
          m.kind.room === 'end' ? m.inputs : feeding.has(m) ? m.inputs.filter((s) => s.spec.role === 'signal') : [];
        return wanted.length > 0 && wanted.every(isSilent);
      })
      .map((m) => ({
        code: 'no-source',
        severity: 'warning' as const,
        at: m.id,
        message: `Nothing reaches ${m.label}: its inputs are unplugged.`,
        numbers: {},
      }));
  },
};
