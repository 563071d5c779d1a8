import type { Metadata } from 'next';
import { ChangeScreen } from '@/ui/bench/ChangeScreen';

export const metadata: Metadata = { title: 'Change sheet' };

export default function Page() {
  return <ChangeScreen />;
}
