import path from 'node:path';
import { defineConfig } from 'vitest/config';

const alias = { '@': path.resolve(import.meta.dirname) };

export default defineConfig({
  test: {
    projects: [
      {
        resolve: { alias },
        test: {
          name: 'unit',
          include: ['{core,server,ui,cli,demo}/**/*.test.ts'],
          testTimeout: 120_000,
          maxWorkers: 2,
        },
      },
      {
        resolve: { alias },
        test: {
          name: 'browser',
          include: ['tests/**/*.test.ts'],
          globalSetup: ['tests/support/chromium.ts'],
          testTimeout: 120_000,
          hookTimeout: 120_000,
          maxWorkers: 2,
        },
      },
    ],
  },
});
