import type { Metadata } from 'next';
import { RackScreen } from '@/ui/rack/RackScreen';

export const metadata: Metadata = { title: 'Racks' };

export default function Page() {
  return <RackScreen />;
}
