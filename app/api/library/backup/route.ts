import { route, whileDamaged } from '@/server/api';
import { download } from '@/server/upload';

export const POST = route(
  async ({ library }) => {
    const { bytes, stream } = await download(library.folder);
    return new Response(stream, {
      headers: {
        'Content-Type': 'application/vnd.sqlite3',
        'Content-Length': String(bytes),
        'Cache-Control': 'no-store',
      },
    });
  },
  200,
  whileDamaged,
);
