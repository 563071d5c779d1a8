import type { NextConfig } from 'next';

const config: NextConfig = {
  serverExternalPackages: ['sequelize', 'sqlite3', 'pdfmake'],
  // Types are checked by themselves, once: npm run types.
  typescript: { ignoreBuildErrors: true },
  poweredByHeader: false,
  devIndicators: false,
  // A recording passes through proxy.ts, which would cut it at 10 MB without a word.
  // And a build anew takes no longer than one from 100 MB of kept parts, and a third less to make.
  experimental: { proxyClientMaxBodySize: 110_000_000, turbopackFileSystemCacheForBuild: false },
  outputFileTracingRoot: import.meta.dirname,
  turbopack: { root: import.meta.dirname },
};

export default config;
