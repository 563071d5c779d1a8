import type { GraphModule } from '../graph/graph';
import { showNumber } from '../units/show';
import { drivesOf, setParam } from './finding';
import type { Cure, FindingRule } from './finding';

const SHARE = 0.001;

/** The panel knob moved so that the sum fits; where it is too wide for that, less depth about the middle. */
function fitting(m: GraphModule, low: number, high: number): { cure?: Cure } {
  const [knob, amount, full] = [m.params.knob, m.params.cvAmount, m.params.fullVolts].map(Number) as [
    number,
    number,
    number,
  ];
  // What the voltages alone move it by, as a share of the knob's travel.
  const [down, up] = [low / full - knob, high / full - knob];
  const depth = up - down > 1 ? 1 / (up - down) : 1;
  const place = Math.min(1 - depth * up, Math.max(-depth * down, knob));
  if (!(place >= 0 && place <= 1)) return {};
  const knobEdit = setParam(m.id, 'knob', place);
  const where = `knob to ${showNumber(100 * place, 0)} %`;
  if (depth === 1) return { cure: { label: `Its ${where}`, edits: [knobEdit] } };
  const edits = [setParam(m.id, 'cvAmount', amount * depth), knobEdit];
  return { cure: { label: `Depth to ${(100 * amount * depth).toFixed(1)} %, ${where}`, edits } };
}

export const pinned: FindingRule = {
  code: 'pinned',
  why: 'Knob and voltages add up, and the sum has run out of the range: the destination stands still there although its voltage moves. Set its knob back or shrink what arrives.',
  when: 'a destination’s sum is beyond an end of its range for more than 0.1 % of the time',
  cures: 'its own knob moved; where the sum is wider than its range, less depth too',
  find(evidence) {
    return drivesOf(evidence, 'parameter')
      .filter(({ below, above }) => below + above > SHARE)
      .map(({ m, low, high, below, above }) => ({
        code: 'pinned',
        severity: 'warning' as const,
        at: `${m.id}.cv`,
        message: `${m.label} sticks at its ends: ${(100 * below).toFixed(1)} % of the time at the bottom, ${(100 * above).toFixed(1)} % at the top. Its own knob and its voltages add up.`,
        numbers: { pinnedLowPercent: 100 * below, pinnedHighPercent: 100 * above },
        ...fitting(m, low, high),
      }));
  },
};
