import { route } from '@/server/api';

export const GET = route(async ({ files, param }) => {
  const { bytes, type } = await files.get(param('id'));
  return new Response(new Uint8Array(bytes), {
    headers: { 'Content-Type': type, 'Cache-Control': 'private, max-age=31536000, immutable' },
  });
});

/** Hides a file; it can be restored. */
export const DELETE = route(async ({ files, param }) => {
  const id = param<string>('id');
  await files.setDeleted(id, true);
  return { id };
});
