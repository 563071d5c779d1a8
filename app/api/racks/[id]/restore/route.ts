import { route } from '@/server/api';

export const POST = route(({ racks, param }) => racks.setDeleted(param('id'), false));
