import { route } from '@/server/api';

export const POST = route(async ({ bench, param }) => {
  const id = param<string>('id');
  await bench.setFileDeleted(id, false);
  return { id };
});
