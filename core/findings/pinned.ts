import { socketAt } from '../document/sockets';
import type { Target } from '../document/targets';
import type { Graph, GraphInput, GraphModule } from '../graph/graph';
import type { EndSpec } from '../kinds/kind';
import type { ParamValues } from '../kinds/params';
import type { Range } from '../law/affine';
import { AtomStore } from '../law/builder';
import { constant } from '../law/affine';
import { showNumber, showVolts } from '../units/show';
import { cures, setCure, setParam } from './finding';
import type { Cure, FindingRule, Found } from './finding';
import { insertOffset } from './insert';
import { asksForEnd } from './wanted';

const SHARE = 0.001;

type End = EndSpec<ParamValues>;

/** A destination's drive where one of its inputs stands at a voltage, the others at 0 V. */
function driveAt(m: GraphModule, end: End, params: ParamValues, input: string, volts: number): number {
  return end.drive(new AtomStore(), params, {
    in: (name) => constant(name === input ? volts : 0),
    connected: (name) => name === input,
    symbol: () => constant(0),
    range: (x) => [x.lo, x.hi],
    loading: m.loading,
  }).c;
}

/** How much less depth a range needs to fit a window, and by how much it must move after that. */
function fitting([lo, hi]: Range, [from, to]: Range): { readonly share: number; readonly shift: number } {
  const share = Math.min(1, (to - from) / (hi - lo));
  const middle = (lo + hi) / 2;
  const [low, high] = [middle + share * (lo - middle), middle + share * (hi - middle)];
  return { share, shift: low < from ? from - low : high > to ? to - high : 0 };
}

/** The range that it would have to be: as wide as before where that fits, moved no further than it must. */
function fitted(at: string, drive: Range, window: Range): Target {
  const { share, shift } = fitting(drive, window);
  const middle = (drive[0] + drive[1]) / 2 + shift;
  const half = (share * (drive[1] - drive[0])) / 2;
  return { at, quantity: 'volts', low: middle - half, high: middle + half };
}

/** Its own knob where it has one that shifts the sum, with its amount where the sum is too wide. */
function byKnobs(m: GraphModule, end: End, drive: Range, window: Range): Cure | null {
  const { ownKnob } = end;
  if (!ownKnob) return null;
  const [knob, amount] = [Number(m.params[ownKnob.param]), Number(m.params[ownKnob.amount])];
  const full = ownKnob.fullVolts(m.params);
  // What the voltages alone move it by, as a share of the knob's travel.
  const [down, up] = [drive[0] / full - knob, drive[1] / full - knob];
  const depth = Math.min(1, (window[1] - window[0]) / (drive[1] - drive[0]));
  const place = Math.min(1 - depth * up, Math.max(-depth * down, knob));
  if (!(place >= 0 && place <= 1)) return null;
  const where = `knob to ${showNumber(100 * place, 0)}%`;
  if (depth === 1) return setCure(`Set its ${where}`, setParam(m.id, ownKnob.param, place));
  return setCure(
    `Set CV amount to ${(100 * amount * depth).toFixed(1)}%, ${where}`,
    setParam(m.id, ownKnob.amount, amount * depth),
    setParam(m.id, ownKnob.param, place),
  );
}

/** Less of the one voltage that drives it, by the amount knob of its socket alone. */
function byAmount(m: GraphModule, end: End, input: GraphInput, drive: Range, [from, to]: Range): Cure | null {
  const param = input.spec.amount;
  if (param === undefined) return null;
  const rest = driveAt(m, end, m.params, input.spec.name, 0);
  const reach = Math.min(
    drive[0] < rest ? (rest - from) / (rest - drive[0]) : 1,
    drive[1] > rest ? (to - rest) / (drive[1] - rest) : 1,
  );
  if (!(reach > 0 && reach < 1)) return null;
  const amount = Math.trunc(1e6 * Number(m.params[param]) * reach) / 1e6;
  return setCure(`Set CV amount to ${showNumber(100 * amount, 1)}%`, setParam(m.id, param, amount));
}

/** A stage that scales and offsets what comes into its window. */
function byStage(graph: Graph, m: GraphModule, end: End, input: GraphInput, drive: Range, window: Range): Cure | null {
  const rest = driveAt(m, end, m.params, input.spec.name, 0);
  const perVolt = driveAt(m, end, m.params, input.spec.name, 1) - rest;
  if (perVolt === 0) return null;
  const { share, shift } = fitting(drive, window);
  const middle = (drive[0] + drive[1]) / 2;
  // New drive = middle + share·(drive − middle) + shift, and drive = rest + perVolt·in.
  const lift = (rest * (share - 1) + middle * (1 - share) + shift) / perVolt;
  const edits = insertOffset(graph, input.socket, 'Fit', share, lift);
  return edits.length > 0
    ? setCure(`Add a stage: gain ${showNumber(100 * share, 1)}%, offset ${showVolts(lift)}`, ...edits)
    : null;
}

/** The ends of a module that stand still beyond a window, those that share their voltages told once. */
function pinningEnds(m: GraphModule): { readonly end: End; readonly index: number; readonly window: Range }[] {
  const told = new Set<string>();
  return (m.kind.ends ?? []).flatMap((end, index) => {
    const window = end.pins ? end.window(m.params) : null;
    const used = m.inputs.some((s) => s.connected && end.sockets.includes(s.spec.name));
    const key = end.sockets.join();
    if (!window || !used || told.has(key)) return [];
    told.add(key);
    return [{ end, index, window }];
  });
}

/** Whether faders take a drive beyond its window where nothing else does, by more than a share of it. */
function pushesBeyond(drive: Range, standing: Range, [from, to]: Range, meant: readonly [boolean, boolean]): boolean {
  const least = SHARE * (to - from);
  const low = !meant[0] && drive[0] < Math.min(from, standing[0]) - least;
  const high = !meant[1] && drive[1] > Math.max(to, standing[1]) + least;
  return low || high;
}

export const pinned: FindingRule = {
  code: 'pinned',
  title: 'Pinned at its limit',
  why: 'Knob and CVs add up, and the sum runs past the range: the parameter stops moving although its CV does not. Move the knob or reduce the CV.',
  when: 'a destination’s knob and CVs add up to more than its range, or less, for more than 0.1% of the time, or a fader can take them there; not at a limit that a target asks for',
  cures: 'moves its knob or CV amount, or adds a stage that fits the CV into the range',
  find({ graph, bounds, overFaders, simulation }) {
    return graph.modules.flatMap((m) =>
      pinningEnds(m).flatMap(({ end, index, window }): Found[] => {
        const seen = simulation?.ends.get(m.id)?.[index];
        const standing = bounds.get(m.id)?.ends[index]?.drive ?? [0, 0];
        const drive = overFaders.get(m.id)?.ends[index]?.drive ?? standing;
        const [meantLow, meantHigh] = asksForEnd(
          graph,
          end.sockets.map((name) => socketAt(m.id, name)),
          end.quantity,
          [end.value(m.params, window[0]) ?? -Infinity, end.value(m.params, window[1]) ?? Infinity],
        );
        const [below, above] = [meantLow ? 0 : (seen?.below ?? 0), meantHigh ? 0 : (seen?.above ?? 0)];
        const byFader = pushesBeyond(drive, standing, window, [meantLow, meantHigh]);
        if (below + above <= SHARE && !byFader) return [];
        const driven = m.inputs.filter((s) => s.driver.type === 'output' && end.sockets.includes(s.spec.name));
        const [only] = driven;
        return [
          {
            code: 'pinned',
            severity: 'warning',
            at: socketAt(m.id, end.socket),
            message: byFader
              ? `${m.label} is pinned where its fader takes it: knob and CV together exceed its range.`
              : `${m.label} is pinned: at its minimum ${(100 * below).toFixed(1)}% of the time, at its maximum ${(100 * above).toFixed(1)}%. Knob and CV together exceed its range.`,
            numbers: { pinnedLowPercent: 100 * below, pinnedHighPercent: 100 * above },
            wanted: fitted(socketAt(m.id, end.socket), drive, window),
            cures: cures(
              byKnobs(m, end, drive, window),
              ...(only && driven.length === 1
                ? [byAmount(m, end, only, drive, window), byStage(graph, m, end, only, drive, window)]
                : []),
            ),
          },
        ];
      }),
    );
  },
};
