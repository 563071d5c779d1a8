import { route } from '@/server/api';
import { tagsSchema } from '@/server/checks/schemas';
import type { PatchHead } from '@/wire/patches';

export const PUT = route<PatchHead>(async ({ patches, param, body }) => {
  const id = param('id');
  return patches.setTags(id, (await body(tagsSchema)).tags);
});
