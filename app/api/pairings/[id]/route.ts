import { route } from '@/server/api';
import { notFound } from '@/server/checks/errors';
import { pairings } from '@/server/pairing';

/** Ends a pairing: that phone sees and sends nothing more. */
export const DELETE = route(({ param }) => {
  const id = param<string>('id');
  if (!pairings().end(id)) throw notFound(`pairing ${id}`);
  return Promise.resolve({ id });
});
