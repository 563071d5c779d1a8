import { route } from '@/server/api';
import { readingsSchema } from '@/server/checks/schemas';
import type { StoredReading } from '@/wire/bench';

/** Adds readings, each judged at once; none is ever changed. */
export const POST = route<{ readings: StoredReading[] }>(async ({ bench, param, body }) => {
  const { readings } = await body(readingsSchema);
  return { readings: await bench.addReadings(param('id'), readings) };
}, 201);
