import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { practiceCsv, recordOfCsv } from './practiceCsv';
import { practiceRecord } from './record';
import type { PracticeAnswer } from './record';
import { allSkills } from './skills';
import { LEVELS } from './types';

const answer = fc.record(
  {
    id: fc.uuid(),
    skill: fc.constantFrom(...allSkills.map((s) => s.name)),
    level: fc.constantFrom(...LEVELS),
    seed: fc.nat(4_294_967_295),
    at: fc
      .date({ min: new Date('2026-01-01'), max: new Date('2036-01-01'), noInvalidDate: true })
      .map((d) => d.toISOString()),
    score: fc.constantFrom(0, 0.5, 1),
    slip: fc.constantFrom('That forgets the offset.', 'Said “so”, then\nagain, "twice"'),
    seconds: fc.integer({ min: 0, max: 8640 }).map((n) => n / 10),
  },
  { requiredKeys: ['id', 'skill', 'level', 'seed', 'at', 'score', 'seconds'] },
) as fc.Arbitrary<PracticeAnswer>;

describe('a record of practice as a table', () => {
  it('comes back as it went out', () => {
    const answers = fc.uniqueArray(answer, { selector: (a) => a.id, maxLength: 20 });
    fc.assert(
      fc.property(answers, (list) => {
        expect(recordOfCsv(practiceCsv(list))).toEqual({ ok: true, value: practiceRecord(list) });
      }),
    );
  });

  it('is refused with the row as one counts it, its head being the first', () => {
    const rows = (...lines: string[]): string => ['id,skill,level,seed,at,score,slip,seconds', ...lines].join('\n');
    const good = 'a,attenuate,1,3,2026-03-01T19:30:00Z,1,,12.5';
    const faults = (text: string): string[] => {
      const read = recordOfCsv(text);
      return read.ok ? [] : read.errors.map((e) => e.path);
    };
    expect(faults(rows(good))).toEqual([]);
    expect(faults(rows(good, 'b,attenuate,9,3,2026-03-01T19:30:00Z,1,,12.5'))).toEqual(['row 3: level']);
    expect(faults(rows('b,attenuate,1,x,2026-03-01T19:30:00Z,1,,12.5'))).toEqual(['row 2: seed']);
    expect(faults('id,skill\na,attenuate')).toEqual(['row 1']);
  });
});
