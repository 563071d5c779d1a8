import type { FindingRule } from './finding';

export const deadEnd: FindingRule = {
  code: 'dead-end',
  why: 'What this module does is neither heard nor measured. Plug it on, pin it to the scope, or take it out.',
  when: 'a module that is not bypassed has outputs, and no cable, normal, probe or target of it or beyond it',
  find({ graph }) {
    const { cables, normals, probes, targets, bypassed } = graph.patch;
    const aside = new Set(bypassed.map((b) => b.module));
    const used = [...cables, ...normals.filter((n) => 'from' in n)].map((c) => c.from);
    const marked = [...probes, ...targets].map((x) => x.at);
    return graph.modules

      .filter((m) => !aside.has(m.id))
      .filter((m) => m.outputs.length > 0 && ![...used, ...marked].some((socket) => socket.startsWith(`${m.id}.`)))
      .map((m) => ({
        code: 'dead-end',
        severity: 'note' as const,
        at: m.id,
        message: `${m.label} reaches nothing: no cable, probe or target is beyond it.`,
        numbers: {},
      }));
  },
};
