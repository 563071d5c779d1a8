import { route } from '@/server/api';
import { createSchema, listSchema } from '@/server/schemas';

export const GET = route(async ({ patches, query }) => ({ patches: await patches.list(query(listSchema).deleted) }));

export const POST = route(async ({ patches, body }) => {
  const { patch, tags } = await body(createSchema);
  return patches.create(patch, tags);
}, 201);
