import { route } from '@/server/api';
import { saveSetListSchema } from '@/server/checks/schemas';

export const GET = route(({ setLists, param }) => setLists.get(param('id')));
export const PUT = route(async ({ setLists, param, body }) =>
  setLists.replace(param('id'), await body(saveSetListSchema)),
);
/** Hides a set list; it can be restored. */
export const DELETE = route(({ setLists, param }) => setLists.setDeleted(param('id'), true));
