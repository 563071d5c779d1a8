import type { Target } from '../../document/targets';
import type { GraphModule } from '../../graph/graph';
import { Gate } from '../../kinds/detect';
import type { EndSpec } from '../../kinds/kind';
import type { ParamValues } from '../../kinds/params';
import type { Range } from '../../law/affine';
import { gainOf } from '../../units/ratios';
import type { Setting } from './setting';
import { driveFor } from '../../answers/drive';
import { MISSING } from './targetError';
import type { TargetError } from './targetError';
import { settledSteps } from '../../answers/levels';
import { arrivalAt } from '../../answers/timeToArrive';
import { levelOf, levelSteps } from '../../simulate/level';
import { placeOf } from '../../graph/place';
import { extremes } from '../../simulate/extremes';
import { cyclesIn, likenessOf, SHAPES, thinned } from './shapes';
import type { Place } from '../../graph/place';

type Trace = Float64Array;

function meanOf(trace: Trace): number {
  let sum = 0;
  for (const v of trace) sum += v;
  return sum / trace.length;
}

/** The last whole period, else the window. */
function lastPeriod(trace: Trace, setting: Setting, place: Place): Trace {
  const every = setting.repeatsEvery(place);
  const n = every === null ? 0 : Math.round(every * setting.sampleRate);
  return n > 0 && n <= trace.length ? trace.subarray(trace.length - n) : trace;
}

const thresholdOf = (m: GraphModule, place: Place): number =>
  (place.at.is === 'input' ? m.inputs[place.at.index]?.spec.threshold : undefined) ??
  Number(m.params[m.kind.timing?.detects?.threshold ?? ''] ?? 1);

/** How far a step's voltage must be from where it would tell otherwise, volts; and how far below a gate lets go. */
export const CLEAR = 0.1;
export const RELEASE = 0.1;

/** Samples at which a sequencer's steps begin, and which steps they are. */
function stepsOf(setting: Setting, id: string): { readonly at: number; readonly step: number }[] {
  const [clockAt, resetAt] = [
    placeOf(setting.graph, `${id}.clock`, 'volts'),
    placeOf(setting.graph, `${id}.reset`, 'volts'),
  ];
  const count =
    (setting.graph.modules.find((m) => m.id === id)?.params.steps as readonly unknown[] | undefined)?.length ?? 1;
  if (!clockAt) return [];
  const clocks = setting.trace(clockAt);
  const resets = resetAt ? setting.trace(resetAt) : new Float64Array(clocks.length);
  const [clock, reset] = [new Gate(1), new Gate(1)];
  const begun: { at: number; step: number }[] = [];
  let next = 0;
  for (let k = 0; k < clocks.length; k++) {
    if (reset.rises(resets[k] ?? 0)) next = 0;
    if (!clock.rises(clocks[k] as number)) continue;
    begun.push({ at: k, step: next });
    next = (next + 1) % count;
  }
  return begun;
}

/** The highest voltage at a place within each step that begins: the step, and whether the window cuts it off. */
export function stepPeaks(
  setting: Setting,
  of: string,
  place: Place,
): { readonly step: number; readonly highest: number; readonly cut: boolean }[] {
  const trace = setting.trace(place);
  const begun = stepsOf(setting, of);
  return begun.map(({ at, step }, i) => {
    const [, highest] = extremes(trace.subarray(at, begun[i + 1]?.at ?? trace.length));
    return { step, highest, cut: i === begun.length - 1 };
  });
}

/** @param asked volts of margin that are asked for beyond what the target needs. */
function stepsError(
  t: Extract<Target, { want: 'steps' }>,
  setting: Setting,
  m: GraphModule,
  place: Place,
  asked = 0,
): TargetError {
  const trace = setting.trace(place);
  const threshold = thresholdOf(m, place);
  const margins = new Map<number, number>();
  for (const { step, highest, cut } of stepPeaks(setting, t.of, place)) {
    const on = t.steps.includes(step);
    // A step that the window cuts off may still come up.
    if (on && cut && margins.has(step)) continue;
    const margin = on ? highest - (threshold + CLEAR) : threshold - RELEASE - CLEAR - highest;
    margins.set(step, Math.min(margins.get(step) ?? Infinity, margin));
  }
  const least = Math.min(...margins.values());
  const residuals = [...margins].map(([step, margin]) => ({
    name: `step ${step}`,
    volts: Math.max(0, asked - margin),
  }));
  const reached = extremes(trace);
  return { error: Math.max(0, -least), span: reached[1] - reached[0], reached, residuals, margin: least };
}

function dutyError(t: Extract<Target, { want: 'duty' }>, setting: Setting, m: GraphModule, place: Place): TargetError {
  const whole = setting.trace(place);
  const gate = new Gate(thresholdOf(m, place));
  const on = new Float64Array(whole.length);
  for (let k = 0; k < whole.length; k++) {
    gate.rises(whole[k] as number);
    on[k] = gate.high ? 1 : 0;
  }
  const share = 100 * meanOf(lastPeriod(on, setting, place));
  const reached = extremes(whole);
  const off = share - t.percent;
  return { error: Math.abs(off), span: 100, reached, residuals: [{ name: 'duty', volts: off / 10 }] };
}

/** How far a level is told to fall into silence, dB. */
const SILENCE_DB = 200;

function dipError(t: Extract<Target, { want: 'dip' }>, setting: Setting, place: Place): TargetError {
  const trace = setting.trace(place);
  const steps = settledSteps(levelSteps(trace, setting.sampleRate), setting.levelRepeats(place));
  const { highestDb = null, lowestDb = null } = levelOf(steps) ?? {};
  const dip = highestDb === null ? null : highestDb - (lowestDb ?? -SILENCE_DB);
  const off = dip === null ? -t.db : dip - t.db;
  return { error: Math.abs(off), span: t.db, reached: extremes(trace), residuals: [{ name: 'dip', volts: off / 4 }] };
}

function arriveError(t: Extract<Target, { want: 'arrive' }>, setting: Setting, place: Place): TargetError {
  const { graph, sampleRate } = setting;
  const watch = arrivalAt(graph, place.socket);
  const places = watch?.sockets.map((socket) => placeOf(graph, socket, 'volts')) ?? [];
  const [from, to] = places.map((p) => p && setting.trace(p));
  if (!watch || !from || !to) return MISSING;
  watch.block([from, to], from.length, 0);
  const seconds = watch.told(sampleRate)?.worst ?? null;
  const off = seconds === null ? graph.patch.settings.duration : seconds - t.seconds;
  const residuals = [{ name: 'arrive', volts: seconds === null ? 10 : (5 * off) / t.seconds }];
  return { error: Math.abs(off), span: t.seconds, reached: extremes(to), residuals };
}

const median = (list: readonly number[]): number => list.toSorted((a, b) => a - b)[Math.floor(list.length / 2)] ?? NaN;

/** Seconds from the last sample of each local maximum above half the greatest gain to a number of dB below it. */
function fallsOf(gain: Trace, db: number, sampleRate: number): number[] {
  const [, top] = extremes(gain);
  const down = gainOf(-db);
  const falls: number[] = [];
  for (let k = 0; k + 1 < gain.length; k++) {
    const peak = gain[k] as number;
    const rose = k === 0 || (gain[k - 1] as number) <= peak;
    if (!rose || (gain[k + 1] as number) >= peak || peak <= top / 2) continue;
    let i = k + 1;
    while (i < gain.length && (gain[i] as number) > peak * down && (gain[i] as number) <= peak) i++;
    if (i < gain.length && (gain[i] as number) <= peak * down) falls.push((i - k) / sampleRate);
  }
  return falls;
}

/** So finely a gain is read over the drives that come; between them straight, some hundred-thousandths off at most. */
const GAIN_POINTS = 1024;

/** What a drive makes of a gain, as a factor. */
function gainsOf(spec: EndSpec<ParamValues> | null, m: GraphModule, drive: Trace): Trace {
  if (!spec) return drive.map(Math.abs);
  const gainAt = (volts: number): number => {
    const db = spec.value(m.params, volts);
    return db === null ? 0 : gainOf(db);
  };
  const [lo, hi] = extremes(drive);
  const step = (hi - lo) / (GAIN_POINTS - 1);
  if (drive.length <= GAIN_POINTS || step === 0) return drive.map(gainAt);
  const table = Float64Array.from({ length: GAIN_POINTS + 1 }, (_, i) => gainAt(Math.min(hi, lo + i * step)));
  return drive.map((v) => {
    const at = (v - lo) / step;
    const i = Math.floor(at);
    const from = table[i] as number;
    return from + (at - i) * ((table[i + 1] as number) - from);
  });
}

function fallError(t: Extract<Target, { want: 'fall' }>, setting: Setting, m: GraphModule, place: Place): TargetError {
  const drive = setting.trace(place);
  const spec = place.at.is === 'end' ? place.at.spec : null;
  const gain = gainsOf(spec, m, drive);
  const seconds = median(fallsOf(gain, t.db, setting.sampleRate));
  const never = setting.graph.patch.settings.duration;
  const off = Number.isNaN(seconds) ? never : seconds - t.seconds;
  const residuals = [{ name: 'fall', volts: Number.isNaN(seconds) ? 10 : (5 * off) / t.seconds }];
  return { error: Math.abs(off), span: t.seconds, reached: extremes(drive), residuals };
}

function likeError(t: Extract<Target, { want: 'like' }>, setting: Setting, place: Place): TargetError {
  const period = thinned(lastPeriod(setting.trace(place), setting, place));
  const reached = extremes(period);
  const swing = reached[1] - reached[0];
  const least = t.least ?? LEAST;
  const best = likenessOf(period, SHAPES[t.shape], cyclesIn(period, reached));
  const mean = meanOf(period);
  const deviation = Math.sqrt(meanOf(period.map((v) => (v - mean) ** 2)));
  const residual = swing > 0 ? (deviation * Math.sqrt(Math.max(0, 1 - best))) / swing : 1;
  const lacks = Math.max(0, least - swing) / least;
  const error = lacks > 0 ? Math.max(residual, 1) : residual;
  return {
    error,
    span: 1,
    reached,
    residuals: [
      { name: 'residual', volts: 10 * residual },
      { name: 'lacks', volts: 5 * lacks },
    ],
  };
}

const LEAST = 0.1;

function meanError(t: Extract<Target, { want: 'mean' }>, setting: Setting, m: GraphModule, place: Place): TargetError {
  const trace = setting.trace(place);
  const volts = place.at.is !== 'end' || t.quantity === 'volts';
  const wanted = volts || place.at.is !== 'end' ? t.value : driveFor(place.at.spec, m.params, t.value);
  const off = meanOf(trace) - wanted;
  const reached = extremes(trace);
  return { error: Math.abs(off), span: reached[1] - reached[0], reached, residuals: [{ name: 'mean', volts: off }] };
}

/** A level's RMS between two figures, volts. */
function levelError(
  t: Extract<Target, { high: unknown }>,
  setting: Setting,
  m: GraphModule,
  place: Place,
): TargetError {
  const trace = setting.trace(place);
  const rms = Math.sqrt(meanOf(trace.map((v) => v * v)));
  // A level is the same either way from 0 V.
  const spec = place.at.is === 'end' ? { ...place.at.spec, span: (): Range => [0, 0] } : null;
  const volts = (figure: number): number => (spec ? driveFor(spec, m.params, figure) : figure);
  const low = typeof t.low === 'number' ? Math.min(0, rms - volts(t.low)) : 0;
  const high = t.high === null ? 0 : Math.max(0, rms - volts(t.high));
  const residuals = [
    { name: 'low', volts: low },
    { name: 'high', volts: high },
  ];
  return { error: Math.max(-low, high), span: rms, reached: [rms, rms], residuals };
}

/** The error of what can only be told by running the patch. */
export function traceError(
  target: Target,
  setting: Setting,
  m: GraphModule,
  place: Place,
  margin?: number,
): TargetError {
  switch (target.want) {
    case 'steps':
      return stepsError(target, setting, m, place, margin);
    case 'duty':
      return dutyError(target, setting, m, place);
    case 'fall':
      return fallError(target, setting, m, place);
    case 'dip':
      return dipError(target, setting, place);
    case 'arrive':
      return arriveError(target, setting, place);
    case 'like':
      return likeError(target, setting, place);
    case 'mean':
      return meanError(target, setting, m, place);
    case undefined:
    case 'range':
    case 'within':
      return levelError(target, setting, m, place);
    default:
      return { error: Infinity, span: 0, reached: [0, 0], residuals: [] };
  }
}
