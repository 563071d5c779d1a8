'use client';
import Box from '@mui/material/Box';
import type { ReactNode } from 'react';
import { SiteHead } from '@/ui/parts/SiteHead';
import { LibrarySection } from './LibrarySection';

function Part({ title, children }: { readonly title: string; readonly children: ReactNode }) {
  return (
    <Box component="section" aria-label={title} sx={{ mt: 4 }}>
      <Box component="h2" sx={{ fontSize: 18, mb: 1, mt: 0 }}>
        {title}
      </Box>
      {children}
    </Box>
  );
}

/** What one chooses once, and the library as a whole. */
export function PreferencesScreen() {
  return (
    <Box component="main" sx={{ pb: 6 }}>
      <SiteHead here="/preferences" />
      <Box sx={{ maxWidth: 860, mx: 'auto', px: 2 }}>
        <Part title="Library">
          <LibrarySection />
        </Part>
      </Box>
    </Box>
  );
}
