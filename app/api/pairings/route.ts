import { route } from '@/server/api';
import { ApiError } from '@/server/checks/errors';
import { pairingSchema } from '@/server/checks/schemas';
import { pairings } from '@/server/pairing';
import type { PairingCode, PairingState } from '@/wire/racks';

export const GET = route<PairingState>(() => {
  const { address } = pairings();
  return Promise.resolve({ address, phones: pairings().list() });
});

/** A code that pairs one phone with one sheet; only where the program serves the local network. */
export const POST = route<PairingCode>(async ({ patches, body }) => {
  const place = await body(pairingSchema);
  await patches.get(place.patch);
  const { address } = pairings();
  if (address === null) throw new ApiError(409, 'no-lan', 'Phone access is off. Restart Fenvo with --lan.');
  const { code, until } = pairings().issue(place);
  return { code, until, url: `${address}/pair?code=${code}` };
}, 201);
