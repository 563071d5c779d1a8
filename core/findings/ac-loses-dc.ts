import { socketLabel } from '../kinds/kind';
import { socketAt } from '../document/sockets';
import { showVolts } from '../units/show';
import { setCure, setParam } from './finding';
import type { FindingRule, Found } from './finding';

const LEAST_VOLTS = 0.01;

export const acLosesDc: FindingRule = {
  code: 'ac-loses-dc',
  title: 'AC coupling blocks DC',
  why: 'An AC-coupled input passes changes and blocks steady voltages, so a CV sinks back to 0 V. Use the DC setting for CV.',
  when: 'AC coupling blocks more than 10 mV DC',
  cures: 'switches to DC coupling',
  find({ graph, simulation }) {
    if (!simulation) return [];
    return graph.modules.flatMap((m) =>
      (m.kind.sound?.acCoupled?.(m.params) ?? []).flatMap((name): Found[] => {
        const volts = simulation.inputs.get(socketAt(m.id, name))?.mean ?? 0;
        if (Math.abs(volts) <= LEAST_VOLTS) return [];
        return [
          {
            code: 'ac-loses-dc',
            severity: 'warning',
            at: socketAt(m.id, name),
            message: `${m.label} is AC-coupled and blocks the ${showVolts(volts)} DC at ${socketLabel(m.kind, name)}.`,
            numbers: { volts },
            cures: [setCure('Switch to DC coupling', setParam(m.id, 'coupling', 'dc'))],
          },
        ];
      }),
    );
  },
};
