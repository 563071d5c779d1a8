import { LIMITS } from '@/core';
import { route } from '@/server/api';
import { addWalkthroughSchema, listSchema } from '@/server/checks/schemas';
import type { StoredWalkthrough } from '@/wire/practice';
import type { AddWalkthroughRequest } from '@/wire/requests';

export const GET = route<{ walkthroughs: StoredWalkthrough[] }>(async ({ walkthroughs, query }) => ({
  walkthroughs: await walkthroughs.list(query(listSchema).deleted),
}));

export const POST = route<StoredWalkthrough>(
  async ({ walkthroughs, body }) =>
    walkthroughs.add((await body<AddWalkthroughRequest>(addWalkthroughSchema, LIMITS.bytes)).walkthrough),
  201,
);
