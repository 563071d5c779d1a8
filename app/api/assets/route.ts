import { ASSET } from '@/core';
import { route } from '@/server/api';
import { assetSchema } from '@/server/checks/schemas';

export const POST = route(async ({ assets, query, bytes }) => {
  const { name, sampleRate } = query(assetSchema);
  return assets.put(name, sampleRate, await bytes(ASSET.bytes));
}, 201);
