import type { Metadata } from 'next';
import { BenchScreen } from '@/ui/bench/BenchScreen';

export const metadata: Metadata = { title: 'Bench' };

export default function Page() {
  return <BenchScreen />;
}
