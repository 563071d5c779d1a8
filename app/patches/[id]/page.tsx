import type { Metadata } from 'next';
import { DeskScreen } from '@/ui/desk/shell/DeskScreen';

export const metadata: Metadata = { title: 'Desk' };

export default async function Page({ params }: { params: Promise<{ id: string }> }) {
  return <DeskScreen id={(await params).id} />;
}
