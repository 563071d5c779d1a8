import { route } from '@/server/api';

export const POST = route(({ patches, param }) => patches.setDeleted(param('id'), false));
