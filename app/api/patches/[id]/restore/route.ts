import { patchAnswer, route } from '@/server/api';

export const POST = route(async ({ patches, param }) => patchAnswer(await patches.setDeleted(param('id'), false)));
