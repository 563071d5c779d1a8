import type { Metadata } from 'next';
import { preload } from 'react-dom';
import { DeskScreen } from '@/ui/desk/shell/DeskScreen';

export const metadata: Metadata = { title: 'Desk' };

export default async function Page({ params }: { params: Promise<{ id: string }> }) {
  const { id } = await params;
  // On its way before the page's scripts are.
  preload(`/api/patches/${encodeURIComponent(id)}`, { as: 'fetch', crossOrigin: 'anonymous' });
  return <DeskScreen id={id} />;
}
