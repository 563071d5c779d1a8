import { socketAt } from '../document/sockets';
import { showVolts } from '../units/show';
import { setCure, setParam } from './finding';
import type { FindingRule, Found } from './finding';

const LEAST_VOLTS = 0.01;

export const acLosesDc: FindingRule = {
  code: 'ac-loses-dc',
  why: 'An AC-coupled input passes movement and loses what stays still. A control voltage through it sinks back to 0 V, so use the DC setting for control.',
  when: 'AC coupling takes more than 10 mV of constant voltage away',
  cures: 'DC coupling',
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
            message: `${m.label} is AC coupled and loses the constant ${showVolts(volts)} at ${name}.`,
            numbers: { volts },
            cures: [setCure('Couple by DC', setParam(m.id, 'coupling', 'dc'))],
          },
        ];
      }),
    );
  },
};
