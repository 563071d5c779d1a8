import { BoundsEngine } from '../bounds/bounds';
import type { GraphModule } from '../graph/graph';
import { showNumber, showVolts } from '../units/show';
import { amplifiersOf } from './amplifiers';
import type { Amplifier } from './amplifiers';
import { boundsWithout, causesOf } from './causes';
import { cures, setCure, setParam } from './finding';
import type { Cure, Evidence, FindingRule, Found, Severity } from './finding';
import { hasTwoLevels } from './levels';
import { AUDIO_HZ } from './paths';
import { asksForSilence } from './wanted';

/** A control that is below what opens it by less is not, volts. */
const SLACK = 0.001;

const isFast = (m: GraphModule): boolean => (m.kind.source?.hertz?.(m.params) ?? 0) >= AUDIO_HZ;

/** Whether the amplifier is closed for all of the window while something moves its control. */
function isShutThroughout(
  { graph, simulation }: Evidence,
  { low, high, deadVolts, below, controls }: Amplifier,
): boolean {
  const moves = high - low > SLACK && causesOf(graph, controls).length > 0;
  return moves && (high <= deadVolts || (simulation !== null && below >= 1));
}

/**
 * An error where something that runs by itself takes the control below what opens it, or where it never opens while
 * something moves it; a note where an envelope, a gate, a hand or a sequence closes it, which is what they are for, and
 * where what closes it has two levels or is sound itself: it chops, or modulates.
 */
function severityOf(evidence: Evidence, amp: Amplifier): Severity {
  const { graph, bounds } = evidence;
  const { m, controls, deadVolts } = amp;
  if (isShutThroughout(evidence, amp)) return 'error';
  const sweeping = controls.filter((s) => !hasTwoLevels(graph, s));
  const causes = causesOf(graph, controls);
  const running = causesOf(graph, sweeping).filter(
    (c) => (c.m.kind.source?.runs?.(c.m.params) ?? false) && !isFast(c.m),
  );
  if (running.length === 0) return 'note';
  if (running.length === causes.length) return 'error';
  // Others are there too: it is the running ones if the control stays open without them.
  const [low = 0] = boundsWithout(graph, bounds, running, new BoundsEngine()).get(m.id)?.ends[0]?.drive ?? [];
  return low < deadVolts - SLACK ? 'note' : 'error';
}

/** Bias up by what is missing; or less depth about the bias; or both, so that the whole movement fits. */
function curesOf({
  m,
  spec,
  low,
  high,
  amount,
  bias,
  biasRange,
  unityVolts,
  deadVolts,
  alone,
}: Amplifier): readonly Cure[] {
  const [, most] = biasRange;
  const missing = deadVolts - low;
  const less = (share: number, to: number, label: string): Cure | null =>
    alone && share > 0 && share <= 1 && to <= most
      ? setCure(label, setParam(m.id, spec.amount, amount * share), setParam(m.id, spec.bias, to))
      : null;
  const raised =
    bias + missing <= most
      ? setCure(`Raise bias by ${showVolts(missing, false)}`, setParam(m.id, spec.bias, bias + missing))
      : null;
  const share = Math.min(1, (unityVolts - deadVolts) / (high - low));
  const lowest = deadVolts + share * (bias - low);
  const fitted = less(
    share,
    lowest,
    `Set CV amount to ${showNumber(100 * amount * share, 1)}%, bias to ${showVolts(lowest)}`,
  );
  const shallow = (bias - deadVolts) / (bias - low);
  return cures(raised, fitted, less(shallow, bias, `Set CV amount to ${showNumber(100 * amount * shallow, 1)}%`));
}

export const vcaShut: FindingRule = {
  code: 'vca-shut',
  title: 'VCA closes',
  why: 'A two-quadrant VCA responds to positive voltage only. Below 0 V, or below its dead zone, it stays closed and that part of the modulation is lost. Raise the CV until its lowest point is still open, unless closing is what you want.',
  when: 'the control voltage of a two-quadrant VCA with a signal at its input falls more than 1 mV below 0 V, or below its dead zone; an error where an LFO, an oscillator, noise or a recording takes it there, or where it is closed for all of the simulation while something moves it; info where an envelope, a gate, a gesture or a sequence does, or a control with two levels or faster than 20 Hz; not where a target asks for silence',
  cures: 'raises the bias by what is missing, or reduces the CV amount',
  find(evidence) {
    return amplifiersOf(evidence)
      .filter((amp) => !amp.bothSigns && amp.low < amp.deadVolts - SLACK && !asksForSilence(evidence.graph, amp))
      .map((amp): Found => {
        const { m, at, low, high, below, unityVolts, deadVolts } = amp;
        const share = evidence.simulation
          ? `closed ${(100 * below).toFixed(0)}% of the time`
          : 'closed part of the time';
        return {
          code: 'vca-shut',
          severity: severityOf(evidence, amp),
          at,
          message: `${m.label} is ${share}: its control voltage (CV plus bias) drops to ${showVolts(low)}, and this VCA is silent below ${showVolts(deadVolts, false)}.`,
          numbers: { shutPercent: 100 * below, missingVolts: deadVolts - low },
          cures: curesOf(amp),
          wanted: {
            at,
            quantity: 'volts',
            low: deadVolts,
            high: deadVolts + Math.min(high - low, unityVolts - deadVolts),
          },
        };
      });
  },
};
