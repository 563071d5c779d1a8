import type { Metadata } from 'next';
import { headers } from 'next/headers';
import { preload } from 'react-dom';
import { DeskScreen } from '@/ui/desk/shell/DeskScreen';

export const metadata: Metadata = { title: 'Desk' };

export default async function Page({ params }: { params: Promise<{ id: string }> }) {
  const { id } = await params;
  // On its way before the page's scripts are; where those are there already, the desk asks for itself.
  const scriptsAreThere = (await headers()).get('sec-fetch-dest') === 'empty';
  if (!scriptsAreThere) preload(`/api/patches/${encodeURIComponent(id)}`, { as: 'fetch', crossOrigin: 'anonymous' });
  return <DeskScreen id={id} />;
}
