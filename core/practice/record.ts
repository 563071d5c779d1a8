import { byDefault, choice, list, number, optional, record, text, whole } from '../document/fields';
import type { ValueOf } from '../document/fields';
import { documentFields } from '../document/depth';
import { own, Reader } from '../document/reader';
import { onlyOnce, readDeclaredFields } from '../document/readField';
import { documentSchema } from '../document/schema';
import type { Schema } from '../document/schema';
import type { PatchError, Result } from '../document/types';
import { skillNamed } from './skills';
import { LEVELS } from './types';

export const PRACTICE_LIMITS = { answers: 100_000, text: 400, seconds: 86_400, bytes: 40_000_000 } as const;

/** An exercise that was answered, as it is kept. */
export const practiceAnswerField = record(
  {
    id: text(64, { least: 1 }),
    skill: text(40, { least: 1 }),
    level: choice(LEVELS),
    seed: whole(0, 4_294_967_295),
    /** When, as an ISO date. */
    at: text(40, {
      pattern: { shape: /^\d{4}-\d\d-\d\dT\d\d:\d\d:\d\d(\.\d+)?Z$/, words: 'a time, as 2026-03-01T19:30:00Z' },
    }),
    score: number(0, 1),
    /** Which known mistake it was. */
    slip: optional(text(PRACTICE_LIMITS.text)),
    /** From when the exercise was shown. */
    seconds: number(0, PRACTICE_LIMITS.seconds),
  },
  { says: 'an exercise that was answered' },
);
export type PracticeAnswer = ValueOf<typeof practiceAnswerField>;

const recordField = record({
  answers: byDefault(
    list(practiceAnswerField, PRACTICE_LIMITS.answers, { check: onlyOnce((a: PracticeAnswer) => a.id, '.id') }),
    [],
  ),
});

export interface PracticeRecord {
  readonly format: 'fenvo.practice';
  readonly version: 1;
  readonly answers: readonly PracticeAnswer[];
}

/** The JSON Schema of a record of practice. */
export const practiceSchema = (): Schema =>
  documentSchema('Fenvo practice, version 1', 'fenvo.practice', recordField, {});

export const practiceRecord = (answers: readonly PracticeAnswer[]): PracticeRecord => ({
  format: 'fenvo.practice',
  version: 1,
  answers,
});

/** Reads a record of practice. @returns every fault with its place, `answers[3].skill`, where it is refused. */
export function parsePractice(json: unknown): Result<PracticeRecord, PatchError[]> {
  const fields = documentFields(json, 'a record of practice');
  if (!fields.ok) return fields;
  const r = new Reader();
  r.oneOf(own(fields.value, 'format'), 'format', ['fenvo.practice']);
  r.oneOf(own(fields.value, 'version'), 'version', [1]);
  return r.settle((): PracticeRecord => {
    const { answers } = readDeclaredFields(r, recordField, fields.value, '');
    if (r.errors.length === 0)
      answers.forEach((a, i) => {
        if (!skillNamed(a.skill)) r.fail(`answers[${i}].skill`, `there is no skill ${a.skill}`);
      });
    return practiceRecord(answers);
  });
}
