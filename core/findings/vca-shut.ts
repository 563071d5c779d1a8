import { socketAt } from '../document/sockets';
import { BoundsEngine } from '../bounds/bounds';
import type { GraphModule } from '../graph/graph';
import { showNumber, showVolts } from '../units/show';
import { boundsWithout, causesOf } from './causes';
import { cures, drivesOf, setCure, setParam } from './finding';
import type { Cure, Evidence, FindingRule, Severity } from './finding';
import { inputNamed, inputsNamed } from './paths';

const THRESHOLD = -0.001;

/** Whether anything that could be heard is at one of its inputs. */
function isFed({ bounds }: Evidence, m: GraphModule): boolean {
  return m.inputs.some((s, i) => {
    const [lo, hi] = bounds.get(m.id)?.inputs[i] ?? [0, 0];
    return (s.spec.name === 'in' || s.spec.name === 'in2') && s.connected && (lo !== 0 || hi !== 0);
  });
}

/**
 * An error where something that runs by itself takes the control below zero; a note where an envelope, a gate, a hand
 * or a sequence does, which is what they are for.
 */
function severityOf({ graph, bounds }: Evidence, m: GraphModule): Severity {
  const causes = causesOf(graph, inputsNamed(m, ['cv', 'cv2']));
  const running = causes.filter((c) => c.m.kind.runs?.(c.m.params) ?? false);
  if (running.length === 0) return 'note';
  if (running.length === causes.length) return 'error';
  // Both are there: it is the running ones if the control stays open without them.
  const [low = 0] = boundsWithout(graph, bounds, running, new BoundsEngine()).get(m.id)?.ends[0]?.drive ?? [];
  return low < THRESHOLD ? 'note' : 'error';
}

/** Bias up by what is missing; or less depth about the bias; or both, so that the whole movement fits. */
function curesOf(m: GraphModule, low: number, high: number): readonly Cure[] {
  const [bias, most, unity, amount] = ['bias', 'biasHighVolts', 'unityVolts', 'cvAmount'].map((name) =>
    Number(m.params[name]),
  ) as [number, number, number, number];
  const alone = !inputNamed(m, 'cv2')?.connected;
  const less = (share: number, to: number, label: string): Cure | null =>
    alone && share > 0 && share <= 1 && to <= most
      ? setCure(label, setParam(m.id, 'cvAmount', amount * share), setParam(m.id, 'bias', to))
      : null;
  const lift =
    bias - low <= most ? setCure(`Lift by ${showVolts(-low, false)}`, setParam(m.id, 'bias', bias - low)) : null;
  const share = Math.min(1, unity / (high - low));
  const fitted = less(
    share,
    share * (bias - low),
    `Depth to ${showNumber(100 * amount * share, 1)} %, bias to ${showVolts(share * (bias - low))}`,
  );
  const shallow = bias / (bias - low);
  return cures(lift, fitted, less(shallow, bias, `Depth to ${showNumber(100 * amount * shallow, 1)} %`));
}

export const vcaShut: FindingRule = {
  code: 'vca-shut',
  why: 'A two-quadrant amplifier answers to positive voltage only: below 0 V it is shut and that part of the movement is lost. Lift the control until its lowest point is still open, unless closing is what it is for.',
  when: 'the control of a two-quadrant amplifier with something at its input falls below −1 mV; an error where a slow oscillator, an oscillator, noise or a recording takes it there, a note where an envelope, a gate, a hand or a sequence does',
  cures: 'bias up by the missing volts; or less depth',
  find(evidence) {
    return drivesOf(evidence)
      .filter(({ m, low }) => m.params.quadrants === 2 && low < THRESHOLD && isFed(evidence, m))
      .map(({ m, low, high, below }) => {
        const share = evidence.simulation
          ? `shut for ${(100 * below).toFixed(0)} % of the time`
          : 'shut for part of the time';
        return {
          code: 'vca-shut',
          severity: severityOf(evidence, m),
          at: socketAt(m.id, 'cv'),
          message: `${m.label} is ${share}: its control falls ${showVolts(-low, false)} below zero, where this amplifier stays silent.`,
          numbers: { shutPercent: 100 * below, missingVolts: -low },
          cures: curesOf(m, low, high),
          wanted: {
            at: socketAt(m.id, 'cv'),
            quantity: 'volts',
            low: 0,
            high: Math.min(high - low, Number(m.params.unityVolts)),
          },
        };
      });
  },
};
