import { patchAnswer, route } from '@/server/api';
import { listSchema } from '@/server/checks/schemas';
import type { ListedPatch } from '@/wire/patches';

export const GET = route<{ patches: ListedPatch[] }>(async ({ patches, query }) => ({
  patches: await patches.list(query(listSchema).deleted),
}));

export const POST = route(async ({ patches, read }) => {
  const { tags, ...made } = await read('create');
  return patchAnswer(await patches.createRead(made, tags), 201);
});
