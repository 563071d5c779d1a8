import { route } from '@/server/api';

/** What is known of all patches together. */
export const GET = route(({ search }) => search.about());
