import { route } from '@/server/api';
import { changeSessionSchema } from '@/server/checks/schemas';

export const GET = route(({ bench, param }) => bench.get(param('id')));

export const PUT = route(async ({ bench, param, body }) => {
  const id = param<string>('id');
  await bench.change(id, await body(changeSessionSchema));
  return bench.get(id);
});

/** Hides a session; it can be restored. */
export const DELETE = route(async ({ bench, param }) => {
  const id = param<string>('id');
  await bench.setDeleted(id, true);
  return { id };
});
