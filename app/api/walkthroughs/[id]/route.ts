import { LIMITS } from '@/core';
import { route } from '@/server/api';
import { saveWalkthroughSchema } from '@/server/checks/schemas';
import type { SaveWalkthroughRequest } from '@/wire/requests';

export const GET = route(({ walkthroughs, param }) => walkthroughs.get(param('id')));
export const PUT = route(async ({ walkthroughs, param, body }) => {
  const { walkthrough, baseRevision } = await body<SaveWalkthroughRequest>(saveWalkthroughSchema, LIMITS.bytes);
  return walkthroughs.replace(param('id'), baseRevision, walkthrough);
});
/** Hides a walkthrough; it can be restored. */
export const DELETE = route(({ walkthroughs, param }) => walkthroughs.setDeleted(param('id'), true));
