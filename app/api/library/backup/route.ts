import { route } from '@/server/api';
import { dataFolder } from '@/server/database';
import { download } from '@/server/upload';

export const POST = route(async () => {
  const { bytes, stream } = await download(dataFolder());
  return new Response(stream, {
    headers: {
      'Content-Type': 'application/vnd.sqlite3',
      'Content-Length': String(bytes),
      'Cache-Control': 'no-store',
    },
  });
});
