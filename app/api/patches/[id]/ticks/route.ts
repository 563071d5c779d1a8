import { LIMITS } from '@/core';
import { route } from '@/server/api';
import { onRackSchema, ticksSchema } from '@/server/checks/schemas';
import type { Ticks } from '@/wire/requests';

export const GET = route<{ ticks: Ticks }>(async ({ racks, param, query }) => ({
  ticks: await racks.ticks(param('id'), query(onRackSchema).rack),
}));

/** Adds ticks to those that are there; of each step the later word counts. */
export const PUT = route<{ ticks: Ticks }>(async ({ racks, patches, param, query, body }) => {
  const id = param<string>('id');
  await patches.get(id);
  const { ticks } = await body(ticksSchema, LIMITS.bytes);
  return { ticks: await racks.addTicks(id, query(onRackSchema).rack, ticks) };
});
