import type { Graph, GraphModule } from '../graph/graph';
import type { Range } from '../law/lin';
import type { Observer } from '../simulate/types';
import { briefSeconds, showNumber } from '../units/show';
import { setParam, watching } from './finding';
import type { Cure } from './finding';
import { gainAt } from './gain';
import { carriesAudio, inputNamed, upstreamModules } from './paths';

const WINDOW_SECONDS = 0.002;
const STEP_DB = 12;
const FLOOR_DB = -40;

/** Follows an amplifier's gain in dB, and the greatest change of it within 2 ms. */
class GainWatch implements Observer {
  readonly sockets: readonly string[];
  fastestDb = 0;
  private readonly past: Float64Array;
  private filled = 0;

  constructor(
    readonly m: GraphModule,
    sampleRate: number,
  ) {
    this.sockets = [`${m.id}.cv`, `${m.id}.cv2`];
    this.past = new Float64Array(Math.max(1, Math.round(WINDOW_SECONDS * sampleRate)));
  }

  block([cv, cv2]: readonly Float64Array[], count: number, k0: number): void {
    const { m, past } = this;
    const [amount, bias] = [Number(m.params.cvAmount), Number(m.params.bias)];
    let [lastControl, lastDb] = [NaN, 0];
    for (let i = 0; i < count; i++) {
      const c = amount * ((cv as Float64Array)[i] as number) + ((cv2 as Float64Array)[i] as number) + bias;
      if (c !== lastControl) {
        lastControl = c;
        lastDb = Math.max(FLOOR_DB, gainAt(m, c) ?? FLOOR_DB);
      }
      const slot = (k0 + i) % past.length;
      if (this.filled === past.length)
        this.fastestDb = Math.max(this.fastestDb, Math.abs(lastDb - (past[slot] as number)));
      else this.filled++;
      past[slot] = lastDb;
    }
  }
}

const GRID = 1000;

/** The greatest change of gain within 2 ms, in dB, while the control goes from one voltage to another in a stage's curve. */
function stageChange(m: GraphModule, from: number, to: number, curve: number, seconds: number): number {
  const y = (x: number): number => (curve === 0 ? x : Math.expm1(-5 * curve * x) / Math.expm1(-5 * curve));
  const db = Array.from({ length: GRID + 1 }, (_, i) => {
    return Math.max(FLOOR_DB, gainAt(m, from + (to - from) * y(i / GRID)) ?? FLOOR_DB);
  });
  const apart = Math.max(1, Math.ceil((WINDOW_SECONDS / seconds) * GRID));
  return db.reduce((most, v, i) => Math.max(most, Math.abs((db[Math.min(GRID, i + apart)] as number) - v)), 0);
}

/** The shortest time, to two digits, in which a stage does not click. */
function quietSeconds(m: GraphModule, from: number, to: number, curve: number): number {
  let seconds = 0.002;
  while (seconds < 10 && stageChange(m, from, to, curve, seconds) > STEP_DB * 0.95) seconds *= 1.25;
  return Number(seconds.toPrecision(2));
}

/** Stages of the contour behind an amplifier, by parameter: the way their control goes, and its curve. */
function stagesOf(m: GraphModule): readonly { readonly param: string; readonly up: boolean; readonly curve: number }[] {
  const curve = m.kind.name === 'slew' ? (m.params.law === 'rc' ? 1 : 0) : null;
  if (curve !== null) {
    return [
      { param: 'rise', up: true, curve },
      { param: 'fall', up: false, curve },
    ];
  }
  const down = Number(m.params.decayCurve);
  return [
    { param: 'attack', up: true, curve: Number(m.params.attackCurve) },
    { param: 'decay', up: false, curve: down },
    { param: 'release', up: false, curve: down },
  ];
}

/** A contour whose stages are too short, made just long enough. */
function lengthened(graph: Graph, m: GraphModule, [low, high]: Range): Cure | undefined {
  const cv = inputNamed(m, 'cv');
  const contour =
    cv && [...upstreamModules(graph, [cv])].find((x) => x.kind.name === 'envelope' || x.kind.name === 'slew');
  if (!contour) return undefined;
  const longer = stagesOf(contour).flatMap(({ param, up, curve }) => {
    const seconds = up ? quietSeconds(m, low, high, curve) : quietSeconds(m, high, low, curve);
    // A linear lag's time is for 10 V.
    const time =
      contour.kind.name === 'slew' && contour.params.law === 'linear'
        ? (seconds * 10) / Math.max(0.1, high - low)
        : seconds;
    return Number(contour.params[param]) < time ? [{ param, time: Number(time.toPrecision(3)) }] : [];
  });
  if (longer.length === 0) return undefined;
  const text = longer.map(({ param, time }) => `${param} to ${briefSeconds(time)}`).join(', ');
  return { label: `Lengthen ${text}`, edits: longer.map(({ param, time }) => setParam(contour.id, param, time)) };
}

export const click = watching<GainWatch>({
  code: 'click',
  why: 'A gain that jumps within a few milliseconds is heard as a click, whatever the sound is. A slower attack or release, or a lag in the control, takes it away.',
  when: 'the gain of an amplifier that passes audio changes by more than 12 dB within 2 ms (below −40 dB counts as −40 dB)',
  cures: 'lengthens the envelope’s or lag’s stages',
  watch(graph) {
    const heard = graph.modules.filter((m) => {
      const input = m.kind.name === 'vca' && (['in', 'in2'] as const).map((n) => inputNamed(m, n));
      return input && input.some((s) => s && carriesAudio(graph, s));
    });
    return heard.map((m) => new GainWatch(m, graph.sampleRate));
  },
  find({ graph, bounds }, watched) {
    return watched
      .filter((w) => w.fastestDb > STEP_DB)
      .map(({ m, fastestDb }) => {
        const dbPerMs = fastestDb / (WINDOW_SECONDS * 1000);
        const cure = lengthened(graph, m, bounds.get(m.id)?.ends[0]?.drive ?? [0, 0]);
        return {
          code: 'click',
          severity: 'warning' as const,
          at: `${m.id}.cv`,
          message: `${m.label} clicks: its gain moves by ${showNumber(dbPerMs, 1)} dB a millisecond.`,
          numbers: { dbPerMs },
          ...(cure && { cure }),
        };
      });
  },
});
