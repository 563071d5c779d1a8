import { route } from '@/server/api';

export const GET = route(async ({ assets, param }) => {
  const { name, sampleRate, volts } = await assets.get(param('id'));
  return new Response(new Uint8Array(volts), {
    headers: {
      'Content-Type': 'application/octet-stream',
      'Cache-Control': 'private, max-age=31536000, immutable',
      'X-Sample-Rate': String(sampleRate),
      'X-Name': encodeURIComponent(name),
    },
  });
});
