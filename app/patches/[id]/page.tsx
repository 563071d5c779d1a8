import type { Metadata } from 'next';
import { headers } from 'next/headers';
import { preload } from 'react-dom';
import { firstPaintOf } from '@/server/firstPaint';
import { DeskScreen } from '@/ui/editor/shell/DeskScreen';

export const metadata: Metadata = { title: 'Editor' };

export default async function Page({ params }: { params: Promise<{ id: string }> }) {
  const { id } = await params;
  // Requested before the page's scripts arrive; where they have, the editor asks for itself.
  const scriptsAreThere = (await headers()).get('sec-fetch-dest') === 'empty';
  if (!scriptsAreThere) preload(`/api/patches/${encodeURIComponent(id)}`, { as: 'fetch', crossOrigin: 'anonymous' });
  // The editor itself reports what cannot be read.
  const first = await firstPaintOf(id).catch(() => null);
  return <DeskScreen id={id} first={first} />;
}
