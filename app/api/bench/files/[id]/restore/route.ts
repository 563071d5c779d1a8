import { route } from '@/server/api';

export const POST = route(async ({ files, param }) => {
  const id = param<string>('id');
  await files.setDeleted(id, false);
  return { id };
});
