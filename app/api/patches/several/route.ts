import { route } from '@/server/api';
import { severalSchema } from '@/server/checks/schemas';
import { LONG_LIST } from '@/wire/sizes';

/** Tags, deletes or restores several patches: all or none. */
export const POST = route(async ({ patches, body }) => ({
  changed: await patches.several(await body(severalSchema, LONG_LIST)),
}));
