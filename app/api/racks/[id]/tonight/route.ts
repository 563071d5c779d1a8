import { route } from '@/server/api';
import { tonightOf } from '@/server/tonight';
import type { Tonight } from '@/wire/racks';

/** Whether each patch in the list can be patched with this rack. */
export const GET = route<{ tonight: Tonight[] }>(async ({ patches, racks, param }) => ({
  tonight: await tonightOf(patches, racks, param('id')),
}));
