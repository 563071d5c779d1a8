import type { Metadata } from 'next';
import { SessionScreen } from '@/ui/bench/SessionScreen';

export const metadata: Metadata = { title: 'Bench session' };

export default async function Page({ params }: { params: Promise<{ id: string }> }) {
  return <SessionScreen id={(await params).id} />;
}
