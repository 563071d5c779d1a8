import { route } from '@/server/api';
import { answersSchema } from '@/server/checks/schemas';
import type { StoredPractice } from '@/wire/practice';
import type { AnswersRequest } from '@/wire/requests';

/** The most that a part of a record may be which is sent at once, bytes. */
const MOST = 1_500_000;

export const GET = route<StoredPractice>(({ practice }) => practice.all());

export const POST = route<StoredPractice>(
  async ({ practice, body }) => practice.add((await body<AnswersRequest>(answersSchema, MOST)).answers),
  201,
);

export const DELETE = route<StoredPractice>(({ practice }) => practice.setRemoved(true));
