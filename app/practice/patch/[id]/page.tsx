import type { Metadata } from 'next';
import { OwnPatchScreen } from '@/ui/practice/OwnPatchScreen';

export const metadata: Metadata = { title: 'Practise a patch' };

export default async function Page({ params }: { params: Promise<{ id: string }> }) {
  return <OwnPatchScreen id={(await params).id} />;
}
