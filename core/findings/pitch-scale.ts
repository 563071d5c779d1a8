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
    if (value >= min && value <= max) return { label: `${m.label} to unity`, edits: [setParam(m.id, param, value)] };
  }
  return undefined;
}

export const pitchScale: FindingRule = {
  code: 'pitch-scale',
  why: 'At one volt an octave every stage on the way must pass exactly its own size, or octaves no longer fit. Set the gain to unity or take pitch past this stage.',
  when: 'a 1 V/oct path’s gain is off unity by 1 cent an octave or more',
  cures: 'sets the amount on the way that makes the gain 1',
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
          message: `Octaves do not fit at ${path.owner.label}: from ${path.source.label} each is off by ${showNumber(centsPerOctave, 0, true)} cents.`,
          numbers: { centsPerOctave },
          cures: cures(cure),
        },
      ];
    });
  },
};
