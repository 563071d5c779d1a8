import { route } from '@/server/api';
import { trendSchema } from '@/server/checks/schemas';
import type { TrendPoint } from '@/wire/bench';

export const GET = route<{ points: TrendPoint[] }>(async ({ bench, query }) => {
  const { patch, at, quantity } = query(trendSchema);
  return { points: await bench.trend(patch, at, quantity) };
});
