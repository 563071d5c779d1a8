import type { Metadata } from 'next';
import { PreferencesPage } from '@/ui/preferences/PreferencesPage';

export const metadata: Metadata = { title: 'Preferences' };

export default function Page() {
  return <PreferencesPage />;
}
