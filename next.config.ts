import type { NextConfig } from 'next';

const config: NextConfig = {
  serverExternalPackages: ['sequelize', 'sqlite3', 'pdfmake'],
  // Types are checked by themselves, once: npm run types.
  typescript: { ignoreBuildErrors: true },
  poweredByHeader: false,
  devIndicators: false,
  // A recording passes through proxy.ts, which would cut it at 10 MB without a word.
  experimental: { proxyClientMaxBodySize: 110_000_000 },
  outputFileTracingRoot: import.meta.dirname,
  turbopack: { root: import.meta.dirname },
};

export default config;
