import { route } from '@/server/api';
import { listSchema, openSessionSchema } from '@/server/checks/schemas';
import type { SessionHead } from '@/wire/bench';

export const GET = route<{ sessions: SessionHead[] }>(async ({ bench, query }) => ({
  sessions: await bench.list(query(listSchema).deleted),
}));

/** Begins a session; one that is open for the same patch and rack is ended. */
export const POST = route(async ({ bench, body }) => bench.open(await body(openSessionSchema)), 201);
