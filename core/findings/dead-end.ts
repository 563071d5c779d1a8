import { idOf } from '../document/sockets';
import type { FindingRule } from './finding';

export const deadEnd: FindingRule = {
  code: 'dead-end',
  why: 'What this module does is neither heard nor measured. Plug it on, pin it to the scope, or take it out.',
  when: 'a module that is not bypassed has outputs, and no cable, normal, probe or target of it or beyond it',
  find({ graph }) {
    const { probes, targets } = graph.patch;
    const reached = new Set([...graph.wiring.usedOutputs, ...[...probes, ...targets].map((x) => x.at)].map(idOf));
    return graph.modules
      .filter((m) => !m.bypassed && m.outputs.length > 0 && !reached.has(m.id))
      .map((m) => ({
        code: 'dead-end',
        severity: 'note' as const,
        at: m.id,
        message: `${m.label} reaches nothing: no cable, probe or target is beyond it.`,
        numbers: {},
      }));
  },
};
