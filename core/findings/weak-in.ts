import { socketAt } from '../document/sockets';
import { dbOf } from '../units/ratios';
import { showNumber } from '../units/show';
import { cures, setCure, setParam } from './finding';
import type { FindingRule, Found } from './finding';

/** What a modular signal swings to, volts. */
const USUAL_VOLTS = 5;
const UNDER_DB = 20;
const MOST_GAIN = 40;

export const weakIn: FindingRule = {
  code: 'weak-in',
  title: 'Input too quiet',
  why: 'Line level is small beside what modules expect, so envelopes and filters barely react. Raise the input gain to about ±5 V.',
  when: 'a line input’s output stays more than 20 dB below ±5 V',
  cures: 'raises its gain',
  find({ graph, simulation }) {
    if (!simulation) return [];
    return graph.modules
      .filter((m) => m.kind.sound?.inlet === true && m.inputs[0]?.connected)
      .flatMap((m): Found[] => {
        const seen = simulation.outputs.get(socketAt(m.id, 'out'));
        const peak = seen ? Math.max(seen.max, -seen.min) : 0;
        const overDb = dbOf(peak / USUAL_VOLTS) ?? -Infinity;
        if (peak === 0 || overDb >= -UNDER_DB) return [];
        const gain = Math.min(MOST_GAIN, Number((Number(m.params.gainDb) - overDb).toFixed(1)));
        return [
          {
            code: 'weak-in',
            severity: 'warning',
            at: socketAt(m.id, 'out'),
            message: `${m.label} is ${showNumber(-overDb, 1)} dB below modular level.`,
            numbers: { overDb },
            cures: cures(
              gain > Number(m.params.gainDb)
                ? setCure(`Set gain to ${showNumber(gain, 1)} dB`, setParam(m.id, 'gainDb', gain))
                : null,
            ),
          },
        ];
      });
  },
};
