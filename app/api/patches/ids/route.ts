import { route, whileDamaged } from '@/server/api';
import { searchIdsSchema } from '@/server/checks/schemas';

/** The ids of all patches that are looked for. */
export const POST = route(
  async ({ search, body }) => ({ ids: await search.ids(await body(searchIdsSchema)) }),
  200,
  whileDamaged,
);
