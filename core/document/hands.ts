import type { Kind } from '../kinds/kind';
import { continuousOf } from '../kinds/knobs';
import type { KnobOf } from '../kinds/knobs';
import { kindNamed } from '../kinds';
import { completeParams } from './params';
import { own, shown } from './reader';
import type { Reader } from './reader';
import { idOf, nameOf } from './sockets';
import type { Hand, HandPoint, ModuleDoc } from './types';

/** Limits of hands: of a patch, of one module, points of one, seconds. */
export const HANDS = { most: 400, each: 9, points: 10_000, longest: 1e6, ways: ['linear', 'hold'] } as const;

/** The knob that a hand turns; null where there is none of that name. What is set up once may be turned too. */
function knobAt(m: ModuleDoc, kind: Kind, name: string): KnobOf | null {
  return continuousOf(kind, completeParams(kind, m.params)).find((k) => k.name === name) ?? null;
}

/** Reads one hand; its values are held to what its knob can be set to. */
export function readHand(r: Reader, x: unknown, path: string, modules: readonly ModuleDoc[]): Hand {
  const h = r.object(x, path);
  r.known(h, path, ['at', 'points', 'interpolation', 'loop']);
  const at = r.text(own(h, 'at'), `${path}.at`, 100);
  const m = modules.find((y) => y.id === idOf(at));
  const kind = m && kindNamed(m.kind);
  const knob = m && kind ? knobAt(m, kind, nameOf(at)) : null;
  if (!knob) r.fail(`${path}.at`, `must be a knob that a hand turns, as trim.amount; got ${shown(at)}`);
  const [min, max] = knob ? [knob.min, knob.max] : [-Infinity, Infinity];
  const points = r.list(own(h, 'points'), `${path}.points`, HANDS.points).map((p, i): HandPoint => {
    const where = `${path}.points[${i}]`;
    const point = r.object(p, where);
    r.known(point, where, ['t', 'value']);
    return {
      t: r.number(own(point, 't'), `${where}.t`, 0, HANDS.longest),
      value: r.number(own(point, 'value'), `${where}.value`, min, max),
    };
  });
  if (points.length === 0) r.fail(`${path}.points`, 'must have at least one point');
  const back = points.findIndex((p, i) => i > 0 && p.t <= (points[i - 1]?.t ?? 0));
  if (back > 0) r.fail(`${path}.points[${back}].t`, 'must be later than the point before');
  const way = own(h, 'interpolation');
  const loop = own(h, 'loop');
  if (loop !== undefined && typeof loop !== 'boolean')
    r.fail(`${path}.loop`, `must be true or false, got ${shown(loop)}`);
  return {
    at,
    points,
    interpolation: way === undefined ? 'linear' : r.oneOf(way, `${path}.interpolation`, HANDS.ways),
    loop: loop === true,
  };
}

/** All hands; a knob has one at most. */
export function readHands(r: Reader, x: unknown, modules: readonly ModuleDoc[]): Hand[] {
  const taken = new Set<string>();
  return r.list(x, 'hands', HANDS.most).map((item, i) => {
    const hand = readHand(r, item, `hands[${i}]`, modules);
    if (taken.has(hand.at)) r.fail(`hands[${i}].at`, `is used twice: ${hand.at}`);
    taken.add(hand.at);
    if ([...taken].filter((at) => idOf(at) === idOf(hand.at)).length > HANDS.each)
      r.fail(`hands[${i}].at`, `is one hand too many: a module has at most ${HANDS.each}`);
    return hand;
  });
}

/** The hands that still have a knob, held to what it can be set to now. */
export function fittingHands(hands: readonly Hand[], modules: readonly ModuleDoc[]): readonly Hand[] {
  if (hands.length === 0) return hands;
  const fitted = hands.flatMap((hand): Hand[] => {
    const m = modules.find((y) => y.id === idOf(hand.at));
    const kind = m && kindNamed(m.kind);
    const knob = m && kind ? knobAt(m, kind, nameOf(hand.at)) : null;
    if (!knob) return [];
    const { min, max } = knob;
    if (hand.points.every((p) => p.value >= min && p.value <= max)) return [hand];
    return [{ ...hand, points: hand.points.map((p) => ({ ...p, value: Math.min(max, Math.max(min, p.value)) })) }];
  });
  return fitted.length === hands.length && fitted.every((h, i) => h === hands[i]) ? hands : fitted;
}
