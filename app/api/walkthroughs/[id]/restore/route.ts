import { route } from '@/server/api';

export const POST = route(({ walkthroughs, param }) => walkthroughs.setDeleted(param('id'), false));
