import { route, whileDamaged } from '@/server/api';
import { searchSchema } from '@/server/checks/schemas';

/** Some rows of the patches that are looked for. */
export const POST = route(async ({ search, body }) => search.rows(await body(searchSchema)), 200, whileDamaged);
