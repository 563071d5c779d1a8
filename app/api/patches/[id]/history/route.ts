import { route } from '@/server/api';

export const GET = route(async ({ patches, param }) => ({ revisions: await patches.history(param('id')) }));
