import { route } from '@/server/api';
import { createSetListSchema, listSchema } from '@/server/checks/schemas';
import type { StoredSetList } from '@/wire/setLists';

export const GET = route<{ setLists: StoredSetList[] }>(async ({ setLists, query }) => ({
  setLists: await setLists.list(query(listSchema).deleted),
}));

export const POST = route(async ({ setLists, body }) => setLists.add(await body(createSetListSchema)), 201);
