import type { Kind } from '../kinds/kind';
import { continuousOf } from '../kinds/knobs';
import type { KnobOf } from '../kinds/knobs';
import { kindNamed } from '../kinds';
import { completeParams } from './params';
import { byDefault, choice, flag, list, number, record, text } from './fields';
import type { ValueOf } from './fields';
import { shown } from './reader';
import type { KnownModule } from './reader';
import { onlyOnce } from './readField';
import { idOf, nameOf, SOCKET_PATTERN } from './sockets';

/** Limits of hands: of a patch, of one module, points of one, seconds. */
export const HANDS = { most: 400, each: 9, points: 10_000, longest: 1e6, ways: ['linear', 'hold'] } as const;

/** The knob that a hand turns; null where there is none of that name. What is set up once may be turned too. */
function knobAt(m: KnownModule, kind: Kind, name: string): KnobOf | null {
  return continuousOf(kind, completeParams(kind, m.params)).find((k) => k.name === name) ?? null;
}

/** One hand; its values are held to what its knob can be set to. */
const hand = record(
  {
    /** `moduleId.parameter` */
    at: text(100, { pattern: { shape: new RegExp(SOCKET_PATTERN), words: 'moduleId.parameter' } }),
    /** In the knob's own unit, `t` seconds from the start. */
    points: list(record({ t: number(0, HANDS.longest), value: number(-Infinity, Infinity) }), HANDS.points, {
      least: { count: 1, words: 'must have at least one point' },
    }),
    interpolation: byDefault(choice(HANDS.ways), 'linear'),
    loop: byDefault(flag, false),
  },
  {
    says: 'a hand on a knob, over time: points in the knob’s own unit',
    check(r, { at, points }, path) {
      const m = r.modules.find((y) => y.id === idOf(at));
      const kind = m && kindNamed(m.kind);
      const knob = m && kind ? knobAt(m, kind, nameOf(at)) : null;
      if (knob) points.forEach((p, i) => r.number(p.value, `${path}.points[${i}].value`, knob.min, knob.max));
      else r.fail(`${path}.at`, `must be a knob that a hand turns, as trim.amount; got ${shown(at)}`);
      const back = points.findIndex((p, i) => i > 0 && p.t <= (points[i - 1]?.t ?? 0));
      if (back > 0) r.fail(`${path}.points[${back}].t`, 'must be later than the point before');
    },
  },
);

/** A hand that turns a knob over time. */
export type Hand = ValueOf<typeof hand>;
export type HandPoint = Hand['points'][number];

/** All hands; a knob has one at most. */
export const handsField = byDefault(
  list(hand, HANDS.most, {
    check(r, hands, path) {
      onlyOnce((h: Hand) => h.at, '.at')(r, hands, path);
      const counts = new Map<string, number>();
      hands.forEach(({ at }, i) => {
        const count = (counts.get(idOf(at)) ?? 0) + 1;
        counts.set(idOf(at), count);
        if (count > HANDS.each) r.fail(`${path}[${i}].at`, `is one hand too many: a module has at most ${HANDS.each}`);
      });
    },
  }),
  [],
);

/** The hands that still have a knob, held to what it can be set to now. */
export function fittingHands(hands: readonly Hand[], modules: readonly KnownModule[]): readonly Hand[] {
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
