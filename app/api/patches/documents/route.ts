import { route, whileDamaged } from '@/server/api';
import { documentsSchema } from '@/server/checks/schemas';

/** The documents of several patches. */
export const POST = route(
  async ({ patches, body }) => {
    const { ids } = await body(documentsSchema);
    return new Response(await patches.documents(ids), { headers: { 'Content-Type': 'application/json' } });
  },
  200,
  whileDamaged,
);
