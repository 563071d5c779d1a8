import { ASSET } from '@/core';
import { route } from '@/server/api';
import { fileSchema } from '@/server/checks/schemas';
import { photographOrThrow } from '@/server/photographs';

/** A WAV file has a head before its samples. */
const MOST_BYTES = { photograph: 8_000_000, recording: ASSET.bytes + 4096 } as const;

/** A photograph or a recording: the body is the file. */
export const POST = route(async ({ files, param, query, bytes }) => {
  const file = query(fileSchema);
  const content = await bytes(MOST_BYTES[file.kind]);
  photographOrThrow(file, content);
  return files.add(param('id'), file, content);
}, 201);
