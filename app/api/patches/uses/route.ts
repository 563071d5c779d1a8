import { route } from '@/server/api';

/** Which patches say that they use which channel. */
export const GET = route(async ({ search }) => ({ uses: await search.uses() }));
