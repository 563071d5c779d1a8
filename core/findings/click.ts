import { socketAt } from '../document/sockets';
import { freeId } from '../edit/editSequence';
import type { Graph, GraphInput, GraphModule } from '../graph/graph';
import type { GainSpec } from '../kinds/kind';
import type { ParamValues } from '../kinds/params';
import type { Range } from '../law/affine';
import type { Observer } from '../simulate/types';
import { briefSeconds, showNumber } from '../units/show';
import { isOrigin } from './causes';
import { cures, setCure, setParam, watching } from './finding';
import type { Cure, Found } from './finding';
import { FIX_IDS, insertBefore } from './insert';
import { hasTwoLevels } from './levels';
import { carriesAudio, inputNamed, inputsNamed, isAudible, sourceOf, upstreamModules } from './paths';

const WINDOW_SECONDS = 0.001;
/** Shares of full gain within the window: textbook fades of 5 ms (0.2) are clean, of 2 ms (0.5) are heard. */
const HEARD = 0.3;
const CLEAN = 0.2;

type Gain = GainSpec<ParamValues>;

/** Follows how much of a sound passes, and how fast it opens and closes: its greatest changes within a millisecond. */
class GainWatch implements Observer {
  readonly sockets: readonly string[];
  private opens = 0;
  private closes = 0;
  private peak = 1;
  private readonly past: Float64Array;
  private filled = 0;
  private readonly gain: (controls: readonly number[]) => number;
  private readonly volts: number[];

  constructor(
    readonly m: GraphModule,
    readonly spec: Gain,
    sampleRate: number,
  ) {
    this.sockets = spec.controls.map((name) => socketAt(m.id, name));
    this.gain = spec.gain(m.params, sampleRate);
    this.volts = spec.controls.map(() => 0);
    this.past = new Float64Array(Math.max(1, Math.round(WINDOW_SECONDS * sampleRate)));
  }

  /** Its fastest opening and closing, as shares of full gain, or of its own peak where that is more. */
  get opening(): number {
    return this.opens / this.peak;
  }

  get closing(): number {
    return this.closes / this.peak;
  }

  block(buffers: readonly Float64Array[], count: number, k0: number): void {
    const { past, volts } = this;
    let slot = k0 % past.length;
    for (let i = 0; i < count; i++) {
      for (let j = 0; j < volts.length; j++) volts[j] = (buffers[j] as Float64Array)[i] as number;
      const gain = this.gain(volts);
      if (this.filled === past.length) {
        const before = past[slot] as number;
        const change = Math.abs(gain - before);
        if (Math.abs(gain) > Math.abs(before)) this.opens = Math.max(this.opens, change);
        else this.closes = Math.max(this.closes, change);
      } else this.filled++;
      this.peak = Math.max(this.peak, Math.abs(gain));
      past[slot] = gain;
      if (++slot === past.length) slot = 0;
    }
  }
}

const GRID = 1000;

/** The first of its controls that something drives. */
const movedBy = (m: GraphModule, spec: Gain): string =>
  spec.controls.find((name) => inputNamed(m, name)?.driver.type === 'output') ?? spec.controls[0] ?? '';

/** Seconds in which a control goes from one voltage to another, in a stage's curve, without a click. */
function quietSeconds({ m, spec }: GainWatch, [from, to]: Range, curve: number): number {
  const y = (x: number): number => (curve === 0 ? x : Math.expm1(-5 * curve * x) / Math.expm1(-5 * curve));
  // A rate at which every sample is a rest of its own: the law without its lag.
  const gain = spec.gain(m.params, 1e-9);
  const moved = Math.max(0, spec.controls.indexOf(movedBy(m, spec)));
  const at = (volts: number): number[] => spec.controls.map((_, j) => (j === moved ? volts : 0));
  const gains = Array.from({ length: GRID + 1 }, (_, i) => gain(at(from + (to - from) * y(i / GRID))));
  const peak = gains.reduce((most, g) => Math.max(most, Math.abs(g)), 1);
  const change = (seconds: number): number => {
    const apart = Math.max(1, Math.ceil((WINDOW_SECONDS / seconds) * GRID));
    return gains.reduce((most, g, i) => Math.max(most, Math.abs((gains[Math.min(GRID, i + apart)] as number) - g)), 0);
  };
  let seconds = WINDOW_SECONDS;
  while (seconds < 10 && change(seconds) > CLEAN * peak) seconds *= 1.1;
  return Number(seconds.toPrecision(2));
}

/** The voltage that a control itself goes over, from bounds. */
type RangeAt = (input: GraphInput) => Range;

/** The ways of a control that a fix slows: both, or one of them where opening at once is meant. */
type Ways = 'both' | 'up' | 'down';

const slows = (ways: Ways, up: boolean): boolean => ways === 'both' || (ways === 'up') === up;

/** A contour whose stages are too short, made just long enough; `more` times that where one stage alone is not all. */
function lengthened(graph: Graph, watch: GainWatch, [low, high]: Range, more: number, ways: Ways): Cure | null {
  const controls = inputsNamed(watch.m, watch.spec.controls);
  const contour = [...upstreamModules(graph, controls)].find((x) => x.kind.timing?.stages);
  if (!contour) return null;
  const stages = contour.kind.timing?.stages?.(contour.params) ?? [];
  const longer = stages.flatMap(({ param, up, curve, forVolts }) => {
    if (!slows(ways, up)) return [];
    const seconds = more * quietSeconds(watch, up ? [low, high] : [high, low], curve);
    const scale = forVolts === undefined ? 1 : forVolts / Math.max(0.1, high - low);
    const time = Number((seconds * scale).toPrecision(3));
    return Number(contour.params[param]) < time ? [{ param, time }] : [];
  });
  if (longer.length === 0) return null;
  const text = longer.map(({ param, time }) => `${param} to ${briefSeconds(time)}`).join(', ');
  return setCure(`Lengthen ${text}`, ...longer.map(({ param, time }) => setParam(contour.id, param, time)));
}

/** A lag in the control's own cable. */
function lagged(graph: Graph, watch: GainWatch, rangeAt: RangeAt, more: number, ways: Ways): Cure | null {
  const driven = inputsNamed(watch.m, watch.spec.controls).filter((s) => s.plugged);
  const [only] = driven;
  if (!only || driven.length !== 1) return null;
  const [low, high] = rangeAt(only);
  const seconds = Math.max(...[[low, high] as const, [high, low] as const].map((way) => quietSeconds(watch, way, 0)));
  const time = Number(((more * seconds * 10) / Math.max(0.1, high - low)).toPrecision(3));
  const params = { law: 'linear', rise: slows(ways, true) ? time : 0, fall: slows(ways, false) ? time : 0 };
  const edits = insertBefore(graph, only.socket, {
    id: freeId(graph.patch, FIX_IDS.slew),
    kind: 'slew',
    label: 'Slew',
    params,
  });
  return edits.length > 0 ? setCure(`Add ${briefSeconds(time)} of slew`, ...edits) : null;
}

/** Whether what moves a control is sound itself, as in amplitude modulation. */
function isAudioRate(graph: Graph, { m, spec }: GainWatch): boolean {
  const controls = inputsNamed(m, spec.controls);
  return [...upstreamModules(graph, controls)].some((x) => x.kind.category === 'source' && isAudible(x));
}

/** Whether every movement of a control is that of a contour: of an envelope, or of a lag that a gate feeds. */
function isStruck(graph: Graph, { m, spec }: GainWatch): boolean {
  const passed = new Set<GraphModule>();
  let contours = 0;
  const visit = (input: GraphInput): boolean => {
    const from = sourceOf(graph, input)?.m;
    if (!from || passed.has(from) || from.kind.panel?.fader) return true;
    passed.add(from);
    const { contour, lags } = from.kind.timing ?? {};
    const followed = lags === undefined ? undefined : inputNamed(from, lags);
    const loops = (from.kind.source?.hertz?.(from.params) ?? 0) > 0;
    if ((contour && !loops) || (followed && hasTwoLevels(graph, followed))) {
      contours++;
      return true;
    }
    return !isOrigin(from) && from.inputs.every((s) => s.spec.role === 'gate' || visit(s));
  };
  return inputsNamed(m, spec.controls).every(visit) && contours > 0;
}

/** Whether all that is heard through a gain is noise, which has an edge at every moment. */
function isNoise(graph: Graph, { m, spec }: GainWatch): boolean {
  const heard = [...upstreamModules(graph, inputsNamed(m, spec.signals))].filter(isAudible);
  return heard.length > 0 && heard.every((x) => x.kind.source?.draws?.(x.params) ?? false);
}

/** What of a gain clicks, as a share of full scale: opening at once is meant of what is struck. */
const worstOf = (watch: GainWatch, struck: boolean): number =>
  struck ? watch.closing : Math.max(watch.opening, watch.closing);

function found(graph: Graph, watch: GainWatch, rangeAt: RangeAt): Found {
  const { m, spec } = watch;
  const control = movedBy(m, spec);
  const at = socketAt(m.id, control);
  const struck = isStruck(graph, watch);
  const worst = worstOf(watch, struck);
  if (worst <= HEARD) {
    const percentPerMs = 100 * watch.opening;
    const message = `${m.label} is struck: its gain opens by ${showNumber(percentPerMs, 0)}% of full scale within 1 ms.`;
    return { code: 'click', severity: 'note', at, message, numbers: { percentPerMs } };
  }
  const [range = [0, 0] as const] = inputsNamed(m, [control]).map(rangeAt);
  const percentPerMs = 100 * worst;
  const ways: readonly Ways[] = struck ? ['down', 'up'] : ['both'];
  return {
    code: 'click',
    severity: 'warning',
    at,
    message: `${m.label} clicks: its gain changes by ${showNumber(percentPerMs, 0)}% of full scale within 1 ms.`,
    numbers: { percentPerMs },
    cures: cures(
      ...[1, 2, 4].flatMap((more) =>
        ways.flatMap((way) => [lengthened(graph, watch, range, more, way), lagged(graph, watch, rangeAt, more, way)]),
      ),
    ),
  };
}

export const click = watching<GainWatch>({
  code: 'click',
  title: 'Click',
  why: 'A gain jump within a millisecond or two is heard as a click, whatever the sound. A slower attack or release, or slew on the CV, removes it.',
  when: 'the gain of a stage that passes sound to a line output changes by more than 30% of full scale (or of its own peak) within 1 ms, and its control is not audio itself (nothing that repeats faster than 20 Hz), nor all of its sound noise; info where only the opening edge of an envelope, or of a slew that a gate feeds, is that steep: the sound is struck',
  cures:
    'lengthens the envelope’s or slew limiter’s stages until the gain changes by 20% in 1 ms, or adds slew to the CV; of a struck sound only those that close it',
  watch(graph) {
    const outs = graph.modules.filter((m) => m.kind.sound?.outlet).flatMap((m) => m.inputs);
    const heard = upstreamModules(graph, outs);
    return [...heard].flatMap((m) =>
      (m.kind.stage?.gains ?? [])
        .filter((spec) => inputsNamed(m, spec.signals).some((s) => carriesAudio(graph, s)))
        .filter((spec) => inputsNamed(m, spec.controls).some((s) => sourceOf(graph, s)))
        .map((spec) => new GainWatch(m, spec, graph.sampleRate))
        .filter((watch) => !isAudioRate(graph, watch) && !isNoise(graph, watch)),
    );
  },
  find({ graph, bounds }, watched) {
    const rangeAt: RangeAt = (input) => {
      const m = graph.modules.find((x) => x.inputs.includes(input));
      return (m && bounds.get(m.id)?.inputs[m.inputs.indexOf(input)]) ?? [0, 0];
    };
    const worst = new Map<string, GainWatch>();
    const shareOf = (watch: GainWatch): number => Math.max(watch.opening, watch.closing);
    for (const watch of watched.filter((w) => shareOf(w) > HEARD)) {
      const known = worst.get(watch.m.id);
      if (!known || shareOf(known) < shareOf(watch)) worst.set(watch.m.id, watch);
    }
    return [...worst.values()].map((watch) => found(graph, watch, rangeAt));
  },
});
