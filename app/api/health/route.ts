import { route } from '@/server/api';

export const GET = route(async ({ patches }) => ({ ok: true, patches: await patches.count() }));
