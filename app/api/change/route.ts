import { route } from '@/server/api';
import { changeSchema } from '@/server/checks/schemas';

/** The steps from one patch, or a variant of it, to another. */
export const GET = route(({ setLists, query }) => setLists.change(query(changeSchema)));
