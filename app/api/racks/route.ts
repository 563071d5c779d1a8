import { LIMITS } from '@/core';
import { route } from '@/server/api';
import { createRackSchema, listSchema } from '@/server/checks/schemas';
import type { ListedRack, StoredRack } from '@/wire/racks';

export const GET = route<{ racks: ListedRack[] }>(async ({ racks, query }) => ({
  racks: await racks.list(query(listSchema).deleted),
}));

export const POST = route<StoredRack>(
  async ({ racks, body }) => racks.create((await body(createRackSchema, LIMITS.bytes)).rack),
  201,
);
