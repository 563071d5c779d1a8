import {
  arrivalAt,
  countsOctaves,
  hangsOn,
  hasLevel,
  inSentence,
  idOf,
  mayNeedTrace,
  missText,
  ofArrival,
  ownEnds,
  showNumber,
  socketAt,
  TARGET_SHAPES,
  wantOf,
  withUnit,
} from '@/core';
import { quantityLabel } from '@/ui/parts/readingText';
import type { GraphModule, Graph, TargetStanding, Reading, Target } from '@/core';

/** Something that can be wanted at a place, by what it means, and the target that it starts as. */
export interface Choice {
  readonly key: string;
  readonly title: string;
  readonly target: Target;
}

const rounded = (x: number): number => Number(x.toPrecision(3)) || 0;

interface At {
  readonly graph: Graph;
  readonly m: GraphModule;
  readonly socket: string;
  readonly reading: Reading | null;
  readonly readings: readonly Reading[];
  readonly labelOf: (socket: string) => string;
}

/** A gain that a listener still takes for open, dB. */
const OPEN_DB = -24;

function gainChoices({ socket: at }: At): Choice[] {
  const gain = { at, quantity: 'gain' } as const;
  return [
    {
      key: 'never shut',
      title: 'Never closed (−24 to 0 dB)',
      target: { ...gain, want: 'within', low: OPEN_DB, high: 0 },
    },
    { key: 'just open', title: 'Peak at unity gain', target: { ...gain, low: null, high: 0 } },
    { key: 'shut to open', title: 'Silence to unity gain', target: { ...gain, low: 'silent', high: 0 } },
    { key: 'ducks', title: 'Ducks by 12 dB', target: { ...gain, low: -12, high: 0 } },
    { key: 'depth', title: 'Depth of 12 dB', target: { ...gain, want: 'span', span: 12, centre: null } },
    { key: 'fall', title: 'Decays 20 dB in a set time', target: { at, want: 'fall', db: 20, seconds: 0.3 } },
  ];
}

/** What is wanted of figures in a destination's own unit, beginning with what is there. */
function figureChoices({ socket: at, reading, m }: At): Choice[] {
  const spec = m.kind.ends?.find((e) => socketAt(m.id, e.socket) === at);
  const quantity = spec?.quantity ?? 'volts';
  const [low, high] = [reading?.arrivesLow ?? null, reading?.arrivesHigh ?? null];
  const [from, to] = [rounded(low ?? 0), rounded(high ?? 1)];
  const octaves = countsOctaves(quantity) && low !== null && low > 0 && high !== null;
  const wide = octaves ? Math.log2((high ?? 1) / low) : to - from;
  const centre = octaves ? Math.sqrt(low * (high ?? 1)) : (from + to) / 2;
  const what = octaves ? 'Width in octaves, around a centre' : 'Width, around a centre';
  return [
    { key: 'range', title: 'Exact range', target: { at, quantity, low: from, high: to } },
    { key: 'within', title: 'Stay within limits', target: { at, want: 'within', quantity, low: from, high: to } },
    { key: 'span', title: what, target: { at, want: 'span', quantity, span: rounded(wide), centre: rounded(centre) } },
    { key: 'mean', title: 'Average value', target: { at, want: 'mean', quantity, value: rounded(centre) } },
  ];
}

/** What can be asked of the further readings of a destination, by what each is called. */
function furtherChoices({ socket: at, readings }: At): Choice[] {
  const further = readings.filter((r) => r.at === at && r.further);
  return further.map(({ quantity, arrivesLow, arrivesHigh }): Choice => {
    const [low, high] = [arrivesLow ?? -60, arrivesHigh ?? 0].map(rounded) as [number, number];
    return {
      key: `range ${quantity}`,
      title: `Exact ${inSentence(quantityLabel(quantity))}`,
      target: { at, quantity, low, high },
    };
  });
}

function gateChoices({ socket: at, graph }: At): Choice[] {
  const rows = graph.modules.filter((m) => Array.isArray(m.params.steps));
  return [
    ...rows.map((m): Choice => ({
      key: `steps ${m.id}`,
      title: `High on chosen steps of ${m.label}`,
      target: { at, want: 'steps', of: m.id, steps: [0] },
    })),
    { key: 'duty', title: 'Duty cycle', target: { at, want: 'duty', percent: 50 } },
  ];
}

/** The other destinations that one can go with or against. */
function tiedChoices({ socket: at, graph, labelOf }: At): Choice[] {
  const others = graph.modules.flatMap((m) =>
    ownEnds(m.kind)
      .map((e) => ({
        to: socketAt(m.id, e.socket),
        used: m.inputs.some((s) => s.connected && e.sockets.includes(s.spec.name)),
      }))
      .filter(({ to, used }) => used && to !== at),
  );
  return others.flatMap(({ to }): Choice[] => [
    { key: `opposite ${to}`, title: `Moves opposite to ${labelOf(to)}`, target: { at, want: 'opposite', to } },
    { key: `same ${to}`, title: `Moves with ${labelOf(to)}`, target: { at, want: 'same', to } },
  ]);
}

const shapeChoices = ({ socket: at }: At): Choice[] =>
  TARGET_SHAPES.map((shape) => ({
    key: `like ${shape}`,
    title: `Close to a ${shape}`,
    target: { at, want: 'like', shape },
  }));

/** What can be asked of a sound's level, and of the steps behind a lag. */
function timedChoices({ socket: at, graph }: At): Choice[] {
  return [
    ...(hasLevel(graph, at)
      ? [{ key: 'dip', title: 'Level dips by 12 dB', target: { at, want: 'dip', db: 12 } } as const]
      : []),
    ...(arrivalAt(graph, at)
      ? [{ key: 'arrive', title: 'Steps arrive in a set time', target: { at, want: 'arrive', seconds: 0.1 } } as const]
      : []),
  ];
}

/** What makes sense to want at a socket, in words. */
export function choicesAt(
  graph: Graph,
  socket: string,
  readings: readonly Reading[],
  labelOf: (socket: string) => string,
): Choice[] {
  const m = graph.modules.find((x) => x.id === idOf(socket));
  if (!m) return [];
  const at: At = { graph, m, socket, labelOf, readings, reading: readings.find((r) => r.at === socket) ?? null };
  const end = m.kind.ends?.find((e) => socketAt(m.id, e.socket) === socket);
  const input = m.inputs.find((s) => s.socket === socket);
  if (input?.spec.threshold !== undefined) return [...gateChoices(at), ...shapeChoices(at)];
  const gain = end?.quantity === 'gain' ? gainChoices(at) : [];
  const all = [
    ...gain,
    ...figureChoices(at),
    ...furtherChoices(at),
    ...(end ? tiedChoices(at) : []),
    ...timedChoices(at),
    ...shapeChoices(at),
  ];
  return all.map((choice) => ({ ...choice, target: ofArrival(choice.target) }));
}

/** What two targets at one socket must share to be of one kind. */
const kindOf = (t: Target): string => [wantOf(t), ...Object.values(hangsOn(t))].join(' ');

/** Whether two targets ask for the same reading: volts stand for whatever a socket reads. */
function sameReading(a: Target, b: Target): boolean {
  const [x, y] = [a, b].map((t) => ('quantity' in t ? t.quantity : 'volts'));
  return x === y || x === 'volts' || y === 'volts';
}

/**
 * A target as it is set at its socket: in the place of one of its kind, else beside the others, by an id of its own
 * where one without stands there already.
 */
export function named(targets: readonly Target[], target: Target): Target {
  const there = targets.filter((t) => t.at === target.at);
  const same = there.find((t) => kindOf(t) === kindOf(target) && sameReading(t, target));
  if (same) return same.id === undefined ? target : { ...target, id: same.id };
  if (there.every((t) => t.id !== undefined)) return target;
  const want = wantOf(target);
  const ids = new Set(there.map((t) => t.id));
  let id: string = want;
  for (let n = 2; ids.has(id); n++) id = `${want}${n}`;
  return { ...target, id };
}

/** Tells targets apart on screen. */
export const rowKey = (t: Target): string => `${t.at}${t.id === undefined ? '' : ` ${t.id}`}`;

/** How a target stands, in a few words: in the destination's own unit where its reading tells it. */
export function standing({ target, met, error }: TargetStanding, reading: Reading | null): string {
  if (met) return 'Target met';
  const miss = reading && missText(target, reading);
  if (miss) return miss.brief;
  if (!Number.isFinite(error)) return 'Can’t be evaluated';
  switch (target.want) {
    case 'duty':
      return `${withUnit(showNumber(error, 1), '%')} off`;
    case 'dip':
      return `${withUnit(showNumber(error, 1), 'dB')} off`;
    case 'fall':
    case 'arrive':
      return `${withUnit(showNumber(error, 3), 's')} off`;
    case 'like':
      return `${withUnit(showNumber(100 * error, 1), '%')} difference`;
    default:
      return `Off by ${withUnit(showNumber(error, error < 0.1 ? 3 : 2), 'V')}`;
  }
}

/** How it stands, of what was told last. */
export const missOf = (missed: readonly TargetStanding[], t: Target): TargetStanding | null =>
  missed.find((m) => m.target === t) ??
  missed.find((m) => mayNeedTrace(t) && m.target.at === t.at && m.target.id === t.id) ??
  null;
