'use client';
import CssBaseline from '@mui/material/CssBaseline';
import { ThemeProvider } from '@mui/material/styles';
import { QueryClient, QueryClientProvider } from '@tanstack/react-query';
import { useState } from 'react';
import type { ReactNode } from 'react';
import { MessageBar } from './MessageBar';
import { PreferencesKeeper } from './preferences';
import { theme } from '@/ui/theme/theme';

export function Providers({ children }: { children: ReactNode }) {
  const [queries] = useState(() => new QueryClient({ defaultOptions: { queries: { retry: 1, staleTime: 1000 } } }));
  return (
    <ThemeProvider theme={theme} defaultMode="system">
      <CssBaseline />
      <PreferencesKeeper />
      <QueryClientProvider client={queries}>
        {children}
        <MessageBar />
      </QueryClientProvider>
    </ThemeProvider>
  );
}
