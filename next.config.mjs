/** @type {import('next').NextConfig} Plain, so that a start need not compile it first. */
const config = {
  serverExternalPackages: ['sequelize', 'sqlite3', 'pdfmake'],
  // Types are checked by themselves, once: npm run types.
  typescript: { ignoreBuildErrors: true },
  poweredByHeader: false,
  devIndicators: false,
  experimental: {
    // A recording passes through proxy.ts, which would cut it at 10 MB without a word.
    proxyClientMaxBodySize: 110_000_000,
    // A build anew takes no longer than one from 100 MB of kept parts, and a third less to make.
    turbopackFileSystemCacheForBuild: false,
    // A start reads what is asked for first, a fifth of its work less; server/serve.ts asks for the pages.
    preloadEntriesOnStart: false,
  },
  outputFileTracingRoot: import.meta.dirname,
  turbopack: { root: import.meta.dirname },
  // Where a page names no icon, as an answer of the API does, browsers ask here.
  rewrites: () => Promise.resolve([{ source: '/favicon.ico', destination: '/icon.svg' }]),
};

export default config;
