import { showNumber } from '../units/show';
import { cures, setParam } from './finding';
import type { Cure, FindingRule, Found } from './finding';
import { pitchPaths } from './pitch-paths';
import type { PitchPath } from './pitch-paths';

const LEAST_CENTS = 1;

/** The one stage whose amount can make up for the path's gain. */
function unityCure({ stages, gain }: PitchPath): Cure | undefined {
  for (const { m, input } of stages) {
    const param = input.spec.amount ?? 'amount';
    const spec = m.kind.params[param];
    if (spec?.type !== 'number' || m.kind.electrical?.passive?.(m.params)) continue;
    const value = Number(m.params[param]) / gain;
    const [min, max] = spec.limits?.(m.params) ?? [spec.min, spec.max];
    if (value >= min && value <= max)
      return { label: `Set ${m.label} to unity gain`, edits: [setParam(m.id, param, value)] };
  }
  return undefined;
}

export const pitchScale: FindingRule = {
  code: 'pitch-scale',
  title: 'Does not track 1 V/oct',
  why: 'For pitch to track, every stage on the path must have exactly unity gain. Set the gain to 1, or route pitch around this stage.',
  when: 'the gain of a 1 V/oct path is off unity by 1 cent per octave or more',
  cures: 'sets the gain on the path that makes it unity',
  find({ graph }) {
    return pitchPaths(graph).flatMap((path): Found[] => {
      const centsPerOctave = 1200 * (path.gain - 1);
      if (Math.abs(centsPerOctave) < LEAST_CENTS) return [];
      const cure = unityCure(path);
      return [
        {
          code: 'pitch-scale',
          severity: 'warning',
          at: path.end.socket,
          message: `${path.owner.label} does not track 1 V/oct: every octave from ${path.source.label} is off by ${showNumber(centsPerOctave, 0, true)} cents.`,
          numbers: { centsPerOctave },
          cures: cures(cure),
        },
      ];
    });
  },
};
