import { patchAnswer, route } from '@/server/api';
import { listSchema } from '@/server/schemas';

export const GET = route(async ({ patches, query }) => ({ patches: await patches.list(query(listSchema).deleted) }));

export const POST = route(async ({ patches, read }) => {
  const { tags, ...made } = await read('create');
  return patchAnswer(await patches.createRead(made, tags), 201);
});
