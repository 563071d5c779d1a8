import { BoundsEngine } from '../bounds/bounds';
import { showNumber, showVolts } from '../units/show';
import { boundsWithout, causesOf } from './causes';
import { amplifiersOf, cures, setCure, setParam } from './finding';
import type { Amplifier, Cure, Evidence, FindingRule, Found, Severity } from './finding';
import { inputsNamed } from './paths';

const THRESHOLD = -0.001;

/**
 * An error where something that runs by itself takes the control below zero; a note where an envelope, a gate, a hand
 * or a sequence does, which is what they are for.
 */
function severityOf({ graph, bounds }: Evidence, { m, spec }: Amplifier): Severity {
  const causes = causesOf(graph, inputsNamed(m, [spec.control, spec.beside]));
  const running = causes.filter((c) => c.m.kind.source?.runs?.(c.m.params) ?? false);
  if (running.length === 0) return 'note';
  if (running.length === causes.length) return 'error';
  // Both are there: it is the running ones if the control stays open without them.
  const [low = 0] = boundsWithout(graph, bounds, running, new BoundsEngine()).get(m.id)?.ends[0]?.drive ?? [];
  return low < THRESHOLD ? 'note' : 'error';
}

/** Bias up by what is missing; or less depth about the bias; or both, so that the whole movement fits. */
function curesOf({ m, spec, low, high, amount, bias, biasRange, unityVolts, alone }: Amplifier): readonly Cure[] {
  const [, most] = biasRange;
  const less = (share: number, to: number, label: string): Cure | null =>
    alone && share > 0 && share <= 1 && to <= most
      ? setCure(label, setParam(m.id, spec.amount, amount * share), setParam(m.id, spec.bias, to))
      : null;
  const lift =
    bias - low <= most
      ? setCure(`Raise bias by ${showVolts(-low, false)}`, setParam(m.id, spec.bias, bias - low))
      : null;
  const share = Math.min(1, unityVolts / (high - low));
  const fitted = less(
    share,
    share * (bias - low),
    `Set CV amount to ${showNumber(100 * amount * share, 1)}%, bias to ${showVolts(share * (bias - low))}`,
  );
  const shallow = bias / (bias - low);
  return cures(lift, fitted, less(shallow, bias, `Set CV amount to ${showNumber(100 * amount * shallow, 1)}%`));
}

export const vcaShut: FindingRule = {
  code: 'vca-shut',
  title: 'VCA closes',
  why: 'A two-quadrant VCA responds to positive voltage only. Below 0 V it stays closed and that part of the modulation is lost. Raise the CV until its lowest point is still open, unless closing is what you want.',
  when: 'the control voltage of a two-quadrant VCA with a signal at its input falls below −1 mV; an error where an LFO, an oscillator, noise or a recording takes it there, info where an envelope, a gate, a gesture or a sequence does',
  cures: 'raises the bias by what is missing, or reduces the CV amount',
  find(evidence) {
    return amplifiersOf(evidence)
      .filter((amp) => !amp.bothSigns && amp.low < THRESHOLD)
      .map((amp): Found => {
        const { m, at, low, high, below, unityVolts } = amp;
        const share = evidence.simulation
          ? `closed ${(100 * below).toFixed(0)}% of the time`
          : 'closed part of the time';
        return {
          code: 'vca-shut',
          severity: severityOf(evidence, amp),
          at,
          message: `${m.label} is ${share}: its control voltage (CV plus bias) drops to ${showVolts(low)}, and this VCA is silent below 0 V.`,
          numbers: { shutPercent: 100 * below, missingVolts: -low },
          cures: curesOf(amp),
          wanted: { at, quantity: 'volts', low: 0, high: Math.min(high - low, unityVolts) },
        };
      });
  },
};
