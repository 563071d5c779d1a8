import { knobsIn } from '../document/knobs';
import { idOf, nameOf } from '../document/sockets';
import type { Patch } from '../document/types';
import { positionOf } from '../units/knob';
import type { Answer, Ask, KnobValue } from './types';

/** How far an answer is from another: in the answer’s own unit, and in what counts as right. */
export interface Distance {
  readonly off: number;
  readonly times: number;
}

/** Half the score up to so many times what counts as right. */
export const HALF = 3;

/** What of a question says how near is near. */
type Asked = Pick<Ask, 'at' | 'unit'>;

const FAR: Distance = { off: Infinity, times: Infinity };
const NONE: Distance = { off: 0, times: 0 };

/** What counts as right: of a range in volts a share of its span, of a voltage of itself, or so many volts at least. */
const VOLTS = { share: 0.02, least: 0.05 } as const;
const READING_SHARE = 0.05;
const PITCH_CENTS = 25;
const DB = 0.5;
const PERCENT = 3;
const LEAST_CENTS = 5;
/** Of a knob’s travel. */
const TRAVEL = 0.03;

const between = (off: number, right: number): Distance => ({
  off: Math.abs(off),
  times: Math.abs(off) / Math.max(right, 1e-9),
});
const further = (a: Distance, b: Distance): Distance => (b.times > a.times ? b : a);

/** A figure of a reading against another. */
function ofReading(ask: Asked, value: number, truth: number): Distance {
  switch (ask.unit) {
    case 'dB':
      return between(value - truth, DB);
    case '%':
      return between(value - truth, PERCENT);
    case 'ct':
      return between(value - truth, Math.max(LEAST_CENTS, READING_SHARE * Math.abs(truth)));
    case 'Hz':
      if (ask.at !== null && nameOf(ask.at) === 'pitch')
        return value > 0 && truth > 0
          ? { off: Math.abs(value - truth), times: Math.abs(1200 * Math.log2(value / truth)) / PITCH_CENTS }
          : FAR;
      return between(value - truth, READING_SHARE * Math.abs(truth));
    default:
      return between(value - truth, Math.max(1e-9, READING_SHARE * Math.abs(truth)));
  }
}

function ofFigure(ask: Asked, value: number, truth: number, span: number): Distance {
  return ask.unit === 'V'
    ? between(value - truth, Math.max(VOLTS.least, VOLTS.share * span))
    : ofReading(ask, value, truth);
}

/** Knobs by how far their pointers are apart, as shares of their travel. */
function ofKnobs(patch: Patch, values: readonly KnobValue[], truths: readonly KnobValue[]): Distance {
  return truths.reduce<Distance>((far, { at, value }) => {
    const m = patch.modules.find((x) => x.id === idOf(at));
    const knob = m && knobsIn(m, patch.settings.bpm).find((k) => k.at === at);
    const given = values.find((v) => v.at === at);
    if (!knob || !given) return FAR;
    const travel = { min: knob.min, max: knob.max, taper: knob.spec.taper };
    return further(far, between(positionOf(travel, given.value) - positionOf(travel, value), TRAVEL));
  }, NONE);
}

/** Places that are not where they should be, in an order. */
const misplaced = (a: readonly number[], b: readonly number[]): number =>
  a.length === b.length ? a.filter((v, i) => v !== b[i]).length : Infinity;

/**
 * How far an answer is from another of the same question.
 *
 * @returns endlessly far where it is an answer of another kind.
 */
export function distanceOf(ask: Asked, patch: Patch, answer: Answer, truth: Answer): Distance {
  if ('low' in answer && 'low' in truth) {
    const span = truth.high - truth.low;
    return further(ofFigure(ask, answer.low, truth.low, span), ofFigure(ask, answer.high, truth.high, span));
  }
  if ('value' in answer && 'value' in truth) return ofFigure(ask, answer.value, truth.value, Math.abs(truth.value));
  if ('knobs' in answer && 'knobs' in truth) return ofKnobs(patch, answer.knobs, truth.knobs);
  if ('choice' in answer && 'choice' in truth)
    return answer.choice === truth.choice ? NONE : { off: 1, times: Infinity };
  if ('order' in answer && 'order' in truth) {
    const off = misplaced(answer.order, truth.order);
    // Two that are exchanged are half right.
    return off === 0 ? NONE : { off, times: off <= 2 ? 2 : Infinity };
  }
  return FAR;
}
