import type { Metadata } from 'next';
import { PreferencesScreen } from '@/ui/preferences/PreferencesScreen';

export const metadata: Metadata = { title: 'Preferences' };

export default function Page() {
  return <PreferencesScreen />;
}
