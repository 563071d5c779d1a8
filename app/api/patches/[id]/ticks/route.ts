import { LIMITS } from '@/core';
import { route } from '@/server/api';
import { onRackSchema, ticksSchema } from '@/server/checks/schemas';
import { newTicks } from '@/wire/racks';
import type { SheetTicks } from '@/wire/racks';

export const GET = route<SheetTicks>(async ({ racks, bench, param, query }) => {
  const id = param<string>('id');
  const { rack } = query(onRackSchema);
  const open = await bench.openFor(id, rack);
  return { ...(await racks.ticks(id, rack)), session: open?.id ?? null };
});

/** Adds ticks to those that are there, and to the session that is open; of each step the later word counts. */
export const PUT = route<SheetTicks>(async ({ racks, patches, bench, param, query, body }) => {
  const id = param<string>('id');
  await patches.get(id);
  const { ticks } = await body(ticksSchema, LIMITS.bytes);
  const { rack } = query(onRackSchema);
  const before = await racks.ticks(id, rack);
  const kept = await racks.addTicks(id, rack, ticks);
  return { ...kept, session: await bench.collect(id, rack, newTicks(before.ticks, kept.ticks)) };
});

/** Begins anew: the session that is open is ended, and nothing is ticked. */
export const DELETE = route<SheetTicks>(async ({ racks, bench, param, query }) => {
  const id = param<string>('id');
  const { rack } = query(onRackSchema);
  const open = await bench.openFor(id, rack);
  if (open) await bench.change(open.id, { ended: true });
  return { ...(await racks.clearTicks(id, rack)), session: null };
});
