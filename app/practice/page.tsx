import type { Metadata } from 'next';
import { PracticeScreen } from '@/ui/practice/PracticeScreen';

export const metadata: Metadata = { title: 'Practice' };

export default function Page() {
  return <PracticeScreen />;
}
