import { Op } from 'sequelize';
import type { PracticeAnswer } from '../core/practice';
import type { StoredPractice } from '../wire/practice';
import type { Database } from './database';
import { AnswerRow } from './models';

const answerOf = ({ id, skill, level, seed, at, score, slip, seconds }: AnswerRow): PracticeAnswer => ({
  id,
  skill,
  level: level as PracticeAnswer['level'],
  seed,
  at,
  score,
  ...(slip !== null && { slip }),
  seconds,
});

/** What was answered in practice: only ever added to; removed all at once, and restored. */
export class Practice {
  constructor(private readonly db: Database) {}

  async all(): Promise<StoredPractice> {
    const rows = await AnswerRow.findAll({ where: { deletedAt: null }, order: ['at', 'id'] });
    return { answers: rows.map(answerOf), removed: await AnswerRow.count({ where: { deletedAt: { [Op.ne]: null } } }) };
  }

  /** Adds answers; those that are there already stay as they are, so that a page can send one twice. */
  async add(answers: readonly PracticeAnswer[]): Promise<StoredPractice> {
    await this.db.write(async (transaction) => {
      const rows = answers.map((a) => ({ ...a, slip: a.slip ?? null, deletedAt: null }));
      await AnswerRow.bulkCreate(rows, { transaction, ignoreDuplicates: true });
    });
    return this.all();
  }

  async setRemoved(removed: boolean): Promise<StoredPractice> {
    await this.db.write((transaction) =>
      AnswerRow.update(
        { deletedAt: removed ? new Date() : null },
        { where: { deletedAt: removed ? null : { [Op.ne]: null } }, transaction },
      ),
    );
    return this.all();
  }
}
