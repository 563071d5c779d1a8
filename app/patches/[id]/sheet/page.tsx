import type { Metadata } from 'next';
import { SheetScreen } from '@/ui/sheet/SheetScreen';

export const metadata: Metadata = { title: 'Sheet' };

export default async function Page({ params }: { params: Promise<{ id: string }> }) {
  return <SheetScreen id={(await params).id} />;
}
