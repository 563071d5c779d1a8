import { patchAnswer, route } from '@/server/api';
import { removeSchema } from '@/server/checks/schemas';

export const GET = route(async ({ patches, param }) => patchAnswer(await patches.get(param('id'))));

export const PUT = route(async ({ patches, param, read }) => {
  const id = param('id');
  const { baseRevision = 0, ...save } = await read('save');
  return patchAnswer(await patches.saveRead(id, baseRevision, save, save));
});

/** Puts a patch among the deleted ones; `?forever=true` removes one of those for good. */
export const DELETE = route(async ({ patches, param, query }) => {
  const id = param('id');
  if (query(removeSchema).forever) return patches.removeForGood(id);
  return patchAnswer(await patches.setDeleted(id, true));
});
