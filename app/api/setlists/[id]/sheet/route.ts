import { route } from '@/server/api';

/** The whole evening, step by step. */
export const GET = route(({ setLists, param }) => setLists.sheet(param('id')));
