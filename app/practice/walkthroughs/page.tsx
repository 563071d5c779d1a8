import type { Metadata } from 'next';
import { PracticeScreen } from '@/ui/practice/PracticeScreen';

export const metadata: Metadata = { title: 'Walkthroughs' };

export default function Page() {
  return <PracticeScreen first="walkthroughs" />;
}
