import { idOf } from '../document/sockets';
import type { FindingRule } from './finding';

export const deadEnd: FindingRule = {
  code: 'dead-end',
  title: 'Unused output',
  why: 'Nothing this module does is heard or measured. Patch it on, pin it to the scope, or remove it.',
  when: 'a module that is not bypassed has outputs, but no cable, normal, pin or target uses them',
  find({ graph }) {
    const { probes, targets } = graph.patch;
    const reached = new Set([...graph.wiring.usedOutputs, ...[...probes, ...targets].map((x) => x.at)].map(idOf));
    return graph.modules
      .filter((m) => !m.bypassed && m.outputs.length > 0 && !reached.has(m.id))
      .map((m) => ({
        code: 'dead-end',
        severity: 'note' as const,
        at: m.id,
        message: `Nothing uses ${m.label}: no cable, pin or target follows it.`,
        numbers: {},
      }));
  },
};
