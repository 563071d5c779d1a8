import { route, whileDamaged } from '@/server/api';
import { uploadSchema } from '@/server/checks/schemas';
import { dataFolder } from '@/server/database';
import { Upload } from '@/server/upload';
import type { Holdings } from '@/wire/library';
import { PART } from '@/wire/sizes';

/** What the backup that came in holds. */
export const GET = route<Holdings>(() => new Upload(dataFolder()).holdings());

export const PUT = route<{ bytes: number }>(
  async ({ query, bytes }) => {
    const { at } = query(uploadSchema);
    return new Upload(dataFolder()).add(at, await bytes(PART));
  },
  200,
  whileDamaged,
);

export const DELETE = route<object>(() => Promise.resolve((new Upload(dataFolder()).remove(), {})), 200, whileDamaged);
