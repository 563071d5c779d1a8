import { readFileSync } from 'node:fs';
import { describe, expect, it } from 'vitest';
import { parsePractice, practiceSchema } from './record';

/** What the page shows as an example. */
const example = (): { answers: Record<string, unknown>[] } =>
  JSON.parse(/```json\n(.*?)```/s.exec(readFileSync('docs/practice.md', 'utf8'))?.[1] ?? '') as {
    answers: Record<string, unknown>[];
  };

describe('a record of practice', () => {
  it('is read as its page shows it', () => {
    expect(parsePractice(example())).toEqual({ ok: true, value: example() });
  });
  it('is refused with the place of each fault', () => {
    const faults = (change: object, twice = false): string[] => {
      const doc = example();
      doc.answers[0] = { ...doc.answers[0], ...change };
      if (twice) doc.answers.push(doc.answers[0]);
      const read = parsePractice(doc);
      return read.ok ? [] : read.errors.map((e) => e.path);
    };
    expect(faults({ skill: 'juggling' })).toEqual(['answers[0].skill']);
    expect(faults({ level: 0, score: -1 })).toEqual(['answers[0].level', 'answers[0].score']);
    expect(faults({ at: '1 March' })).toEqual(['answers[0].at']);
    expect(faults({}, true)).toEqual(['answers[1].id']);
    expect(parsePractice([])).toMatchObject({ ok: false, errors: [{ path: '' }] });
    expect(parsePractice({ format: 'fenvo.log', version: 1 })).toMatchObject({
      ok: false,
      errors: [{ path: 'format' }],
    });
  });
  it('has the schema that is published', () => {
    const published = JSON.parse(readFileSync('docs/practice.schema.json', 'utf8')) as unknown;
    expect(practiceSchema()).toEqual(published);
  });
});
