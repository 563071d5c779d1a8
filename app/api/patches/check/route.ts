import { route, whileDamaged } from '@/server/api';
import { rackCheckSchema } from '@/server/checks/schemas';
import { LONG_LIST } from '@/wire/sizes';

/** Which of several patches can be patched with a rack. */
export const POST = route(
  async ({ search, body }) => {
    const { ids, rack } = await body(rackCheckSchema, LONG_LIST);
    return search.check(ids, rack);
  },
  200,
  whileDamaged,
);
