import { route } from '@/server/api';

export const POST = route(async ({ bench, param }) => {
  const id = param<string>('id');
  await bench.setDeleted(id, false);
  return { id };
});
