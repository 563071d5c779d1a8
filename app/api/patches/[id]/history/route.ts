import { route } from '@/server/api';
import type { SavedVersion } from '@/wire/patches';

export const GET = route<{ revisions: SavedVersion[] }>(async ({ patches, param }) => ({
  revisions: await patches.history(param('id')),
}));
