import type { ModuleBounds } from '../bounds/bounds';
import { socketAt } from '../document/sockets';
import type { GraphInput, GraphModule } from '../graph/graph';
import type { ParamValues } from '../kinds/params';
import type { AmplifierSettings, AmplifierSpec } from '../kinds/traits';
import type { Cure, Evidence } from './finding';
import { setCure, setParam } from './finding';
import { inputsNamed } from './paths';

/** An amplifier that has a signal and whose control is plugged, with how far it opens: the drive of its first end. */
export interface Amplifier extends AmplifierSettings {
  readonly m: GraphModule;
  readonly spec: AmplifierSpec<ParamValues>;
  /** The socket of its control. */
  readonly at: string;
  /** What its control reaches as its faders stand, volts. */
  readonly low: number;
  readonly high: number;
  /** The control that opens it furthest, with its faders where they do so. */
  readonly peak: number;
  /** That peak takes a fader away from where it stands. */
  readonly byFader: boolean;
  /** Shares of the time below and above its window, as its faders stand. */
  readonly below: number;
  readonly above: number;
  /** The inputs that open it. */
  readonly controls: readonly GraphInput[];
  /** Nothing is at its second control: its amount scales all that comes on top of its own level. */
  readonly alone: boolean;
}

/** Whether anything that could be heard is at one of a module's inputs. */
function isFed(bounds: ReadonlyMap<string, ModuleBounds>, m: GraphModule, signals: readonly string[]): boolean {
  return m.inputs.some((s, i) => {
    const [lo, hi] = bounds.get(m.id)?.inputs[i] ?? [0, 0];
    return signals.includes(s.spec.name) && s.connected && (lo !== 0 || hi !== 0);
  });
}

/** Less than this is no way for a fader, volts. */
const SAME = 1e-6;

/** The amplifiers that something moves and that have a signal: of the others nothing is heard. */
export function amplifiersOf({ graph, bounds, overFaders, simulation }: Evidence): Amplifier[] {
  return graph.modules.flatMap((m): Amplifier[] => {
    const spec = m.kind.stage?.amplifier;
    const controls = spec ? inputsNamed(m, [spec.control, spec.beside]) : [];
    if (!spec || !controls.some((s) => s.connected) || !isFed(overFaders, m, spec.signals)) return [];
    const settings = spec.settings(m.params);
    const [low, high] = bounds.get(m.id)?.ends[0]?.drive ?? [0, 0];
    const reach = overFaders.get(m.id)?.ends[0]?.drive ?? [low, high];
    const { below = 0, above = 0 } = simulation?.ends.get(m.id)?.[0] ?? {};
    const peakOf = (lo: number, hi: number): number => (settings.bothSigns ? Math.max(hi, -lo) : hi);
    const peak = peakOf(...reach);
    const byFader = peak > peakOf(low, high) + SAME;
    const alone = !controls.some((s) => s.spec.name === spec.beside && s.connected);
    const at = socketAt(m.id, spec.control);
    return [{ ...settings, m, spec, at, low, high, peak, byFader, below, above, controls, alone }];
  });
}

/** The amount with which an amplifier's control peaks where it is fully open; NaN where nothing comes on its level. */
export const fittingAmount = ({ amount, bias, unityVolts, peak }: Amplifier): number =>
  peak === bias ? NaN : (amount * (unityVolts - bias)) / (peak - bias);

export const amountCure = ({ m, spec }: Amplifier, amount: number): Cure =>
  setCure(`Set CV amount to ${(100 * amount).toFixed(1)}%`, setParam(m.id, spec.amount, amount));
