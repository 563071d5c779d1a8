import type { Metadata } from 'next';
import { WalkthroughScreen } from '@/ui/practice/walkthroughs/WalkthroughScreen';

export const metadata: Metadata = { title: 'Walkthrough' };

export default async function Page({ params }: { params: Promise<{ id: string }> }) {
  return <WalkthroughScreen id={(await params).id} />;
}
