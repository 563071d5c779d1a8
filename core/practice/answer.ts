import { parseFault } from '../bench/faultFields';
import { any, list, number, optional, record, text, whole } from '../document/fields';
import type { RecordField } from '../document/fields';
import { documentFields } from '../document/depth';
import { knobsIn } from '../document/knobs';
import { Reader, shown } from '../document/reader';
import { readDeclaredFields } from '../document/readField';
import type { PatchError, Result } from '../document/types';
import type { Answer, AnswerSort, Exercise } from './types';

/** Figures beyond this are no answer to anything, in whatever unit. */
const MOST = 1_000_000;
const figure = number(-MOST, MOST);
const MOST_PARTS = 8;

type AnswerField = RecordField & { readonly is?: unknown };
const value: AnswerField = record({ value: figure });

const FIELDS: Readonly<Record<AnswerSort, AnswerField>> = {
  range: record({ low: figure, high: figure }),
  volts: value,
  unit: value,
  knob: record({ knobs: list(record({ at: text(100), value: figure }), MOST_PARTS) }),
  choice: record({ choice: whole(0, MOST_PARTS) }),
  order: record({ order: list(whole(0, MOST_PARTS), MOST_PARTS) }),
  fault: record({ faults: list(any, 2), readings: optional(whole(0, 10_000)) }),
};

/** What no field alone can say: choices and knobs are those that were asked for, faults are those of the patch. */
function check(r: Reader, answer: Answer, { ask, patch }: Exercise): void {
  const choices = ask.choices?.length ?? 0;
  if ('low' in answer && answer.low > answer.high) r.fail('high', `must be at least low, ${answer.low}`);
  if ('choice' in answer && answer.choice >= choices)
    r.fail('choice', `must be a choice, 0 to ${choices - 1}; got ${answer.choice}`);
  if ('order' in answer) {
    const all = new Set(answer.order);
    if (answer.order.length !== choices || all.size !== choices || [...all].some((n) => n >= choices))
      r.fail('order', `must have each of 0 to ${choices - 1} once, got ${shown(answer.order)}`);
  }
  if ('knobs' in answer)
    answer.knobs.forEach(({ at, value }, i) => {
      const knob = patch.modules.flatMap((m) => knobsIn(m, patch.settings.bpm)).find((k) => k.at === at);
      if (!knob || !ask.knobs?.includes(at))
        r.fail(`knobs[${i}].at`, `must be one of ${ask.knobs?.join(', ')}; got ${shown(at)}`);
      else r.number(value, `knobs[${i}].value`, knob.min, knob.max);
    });
  if ('faults' in answer)
    answer.faults.forEach((fault, i) => {
      const read = parseFault(fault, patch);
      if (!read.ok) for (const e of read.errors) r.fail(`faults[${i}]${e.path ? `.${e.path}` : ''}`, e.message);
    });
}

/**
 * Reads an answer to an exercise.
 *
 * @returns every fault with its place where it is refused: an answer of another kind, an index that is none.
 */
export function parseAnswer(json: unknown, exercise: Exercise): Result<Answer, PatchError[]> {
  const fields = documentFields(json, 'an answer');
  if (!fields.ok) return fields;
  const r = new Reader();
  const field = FIELDS[exercise.ask.answer];
  r.known(fields.value, '', Object.keys(field.fields));
  return r.settle((): Answer => {
    const answer = readDeclaredFields(r, field, fields.value, '') as Answer;
    if (r.errors.length === 0) check(r, answer, exercise);
    return answer;
  });
}
