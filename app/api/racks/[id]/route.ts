import { LIMITS } from '@/core';
import { route } from '@/server/api';
import { saveRackSchema } from '@/server/checks/schemas';
import type { StoredRack } from '@/wire/racks';

export const GET = route<StoredRack>(({ racks, param }) => racks.get(param('id')));

export const PUT = route<StoredRack>(async ({ racks, param, body }) => {
  const id = param('id');
  const { baseRevision, rack, key } = await body(saveRackSchema, LIMITS.bytes);
  return racks.save(id, baseRevision, rack, key);
});

/** Puts a rack among the deleted ones. */
export const DELETE = route<StoredRack>(({ racks, param }) => racks.setDeleted(param('id'), true));
