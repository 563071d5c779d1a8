import { route } from '@/server/api';

export const POST = route(({ setLists, param }) => setLists.setDeleted(param('id'), false));
