import { route } from '@/server/api';
import { saveSchema } from '@/server/schemas';

export const GET = route(({ patches, param }) => patches.get(param('id')));

export const PUT = route(async ({ patches, param, body }) => {
  const id = param('id');
  const { baseRevision, patch, tags } = await body(saveSchema);
  return patches.save(id, baseRevision, patch, tags);
});

export const DELETE = route(({ patches, param }) => patches.setDeleted(param('id'), true));
