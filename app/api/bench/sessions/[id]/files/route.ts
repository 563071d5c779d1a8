import { ASSET } from '@/core';
import { route } from '@/server/api';
import { fileSchema } from '@/server/checks/schemas';
import { photographOrThrow } from '@/server/photographs';

/** A photograph or a recording: the body is the file. */
export const POST = route(async ({ bench, param, query, bytes }) => {
  const file = query(fileSchema);
  const content = await bytes(file.kind === 'photograph' ? 8_000_000 : ASSET.bytes + 4096);
  photographOrThrow(file, content);
  return bench.addFile(param('id'), file, content);
}, 201);
