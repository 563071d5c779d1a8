import { route } from '@/server/api';

export const GET = route(async ({ bench, param }) => {
  const { bytes, type } = await bench.file(param('id'));
  return new Response(new Uint8Array(bytes), {
    headers: { 'Content-Type': type, 'Cache-Control': 'private, max-age=31536000, immutable' },
  });
});

/** Hides a file; it can be restored. */
export const DELETE = route(async ({ bench, param }) => {
  const id = param<string>('id');
  await bench.setFileDeleted(id, true);
  return { id };
});
