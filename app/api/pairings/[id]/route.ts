import { route } from '@/server/api';
import { notFound } from '@/server/checks/errors';
import { pairings } from '@/server/pairing';

/** Ends a pairing: that phone can no longer read or send anything. */
export const DELETE = route(({ param }) => {
  const id = param<string>('id');
  if (!pairings().end(id)) throw notFound(`pairing ${id}`);
  return Promise.resolve({ id });
});
