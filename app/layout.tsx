import '@fontsource-variable/atkinson-hyperlegible-mono';
import '@fontsource-variable/atkinson-hyperlegible-next';
import InitColorSchemeScript from '@mui/material/InitColorSchemeScript';
import { AppRouterCacheProvider } from '@mui/material-nextjs/v16-appRouter';
import type { Metadata } from 'next';
import { headers } from 'next/headers';
import type { ReactNode } from 'react';
import { EarlyPresses } from '@/ui/parts/EarlyPresses';
import { Providers } from '@/ui/parts/Providers';
import { mediaStyles } from '@/ui/theme/media';

export const metadata: Metadata = {
  title: { default: 'Fenvo', template: '%s · Fenvo' },
  description: 'Plans modulation patches for modular synthesisers',
};

export default async function RootLayout({ children }: { children: ReactNode }) {
  const nonce = (await headers()).get('x-nonce') ?? '';
  return (
    <html lang="en" suppressHydrationWarning>
      <body>
        <style nonce={nonce} suppressHydrationWarning dangerouslySetInnerHTML={{ __html: mediaStyles }} />
        <InitColorSchemeScript attribute="class" defaultMode="system" nonce={nonce} />
        <EarlyPresses nonce={nonce} />
        <AppRouterCacheProvider options={{ key: 'mui', nonce }}>
          <Providers>{children}</Providers>
        </AppRouterCacheProvider>
      </body>
    </html>
  );
}
