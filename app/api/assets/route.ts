import { ASSET } from '@/core';
import type { UnusedAsset } from '@/wire/patches';
import { route } from '@/server/api';
import { assetIdsSchema, assetSchema } from '@/server/checks/schemas';

/** The recordings that nothing plays any more, with their size. */
export const GET = route<{ unused: readonly UnusedAsset[] }>(async ({ assets }) => ({ unused: await assets.unused() }));

/** Removes those of a list that nothing plays. */
export const DELETE = route<{ removed: number }>(async ({ assets, body }) => {
  const { ids } = await body(assetIdsSchema);
  return assets.removeUnused(ids);
});

export const POST = route(async ({ assets, query, bytes }) => {
  const { name, sampleRate } = query(assetSchema);
  return assets.put(name, sampleRate, await bytes(ASSET.bytes));
}, 201);
