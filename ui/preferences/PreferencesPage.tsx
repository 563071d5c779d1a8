'use client';
import Box from '@mui/material/Box';
import { later } from '@/ui/parts/later';
import { SiteHead } from '@/ui/parts/SiteHead';

// What is preferred is known in the browser alone.
const PreferencesScreen = later(() => import('./PreferencesScreen').then((m) => m.PreferencesScreen));

export function PreferencesPage() {
  return (
    <Box component="main" sx={{ pb: 6 }}>
      <SiteHead here="/preferences" />
      <PreferencesScreen />
    </Box>
  );
}
