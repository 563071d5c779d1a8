import type { Metadata } from 'next';
import { SetListScreen } from '@/ui/bench/SetListScreen';

export const metadata: Metadata = { title: 'Set list' };

export default async function Page({ params }: { params: Promise<{ id: string }> }) {
  return <SetListScreen id={(await params).id} />;
}
