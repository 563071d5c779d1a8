import { route } from '@/server/api';
import { revisionSchema } from '@/server/schemas';

export const GET = route(({ patches, param }) =>
  patches.revision(param('id'), param<number>('revision', revisionSchema)),
);
