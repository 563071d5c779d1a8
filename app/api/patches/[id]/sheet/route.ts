import { route } from '@/server/api';
import { sheetSchema } from '@/server/checks/schemas';
import { sheetAnswer } from '@/server/sheets';

/** The steps of a patch, at a rack or without one; as JSON, or as a file to keep. */
export const GET = route(({ patches, racks, param, query }) =>
  sheetAnswer(patches, racks, param('id'), query(sheetSchema)),
);
