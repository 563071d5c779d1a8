import { PatchBuilder } from '../build';
import { roundOf, set } from '../chain';
import { asLow, highShare } from '../slips';
import type { Skill } from '../types';

export const hangingGate: Skill = {
  name: 'hanging-gate',
  group: 'time',
  text: 'Hanging gates',
  draw(d, level) {
    const b = new PatchBuilder();
    const { volts: step } = roundOf(level);
    const count = level < 3 ? 4 : 8;
    const steps = Array.from({ length: count }, () => ({ volts: d.number(0, 5, step), gate: d.chance(0.8) }));
    const key = b.add('clock', 'Key', { bpm: 60 * count, width: 0.5 });
    const row = b.add('sequencer', 'Row', { steps } as never);
    const thresholdVolts = d.number(1, 4, step) + step / 2;
    const gate = b.add('comparator', 'Window', { thresholdVolts, hysteresis: 0 });
    b.plug(`${key}.out`, `${row}.clock`).plug(`${row}.cv`, `${gate}.in`);
    const at = `${gate}.out`;
    const high = steps.filter((s) => s.volts >= thresholdVolts).length;
    if (high === 0 || high === count) return null;
    return {
      patch: b.patch('Hanging gates', { duration: 4, sampleRate: 8000 }),
      text: `A row of ${count} steps drives a gate with a threshold of ${thresholdVolts} V. For how much of the time is it high?`,
      at,
      answer: 'unit',
      unit: '%',
      figure: 'percent',
      truth: highShare(at),
      slips: [
        {
          text: 'That lets the gate go low between steps: a step’s voltage holds until the next one.',
          as: (truth) => ('value' in truth ? { value: truth.value / 2 } : null),
        },
        asLow,
        {
          text: 'That counts only the steps whose own gate is on: the threshold sees the voltage alone.',
          as: () => ({
            value: (100 * steps.filter((s) => s.gate && s.volts >= thresholdVolts).length) / count,
          }),
        },
        { text: 'That takes the usual threshold of 2.5 V.', edits: [set('window.thresholdVolts', 2.5)] },
      ],
    };
  },
};
