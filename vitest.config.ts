import path from 'node:path';
import { defineConfig } from 'vitest/config';
import { BaseSequencer } from 'vitest/node';
import type { TestSpecification } from 'vitest/node';
import { quickFlags } from './scripts/quickFlags.mjs';

const alias = { '@': path.resolve(import.meta.dirname) };

/** What takes longest, in that order: begun last, one worker would wait for the other. Units come first of all. */
const LONG = [
  ...['core/plan/goal', 'core/testing/seeds', 'core/findings/exact', 'core/solve/solve', 'core/plan/plan', 'cli/main'],
  ...['core/testing/documents', 'core/testing/properties', 'core/live/ramps', 'core/live/loop', 'core/bench'],
  ...[
    'tests/tools',
    'tests/listen',
    'tests/hear',
    'tests/editor',
    'tests/bench',
    'tests/targets',
    'tests/face',
    'tests/journeys',
  ],
  ...['tests/server', 'tests/access', 'tests/counted', 'tests/storage', 'tests/racks', 'tests/long'],
];
class LongestFirst extends BaseSequencer {
  override async sort(files: TestSpecification[]): Promise<TestSpecification[]> {
    const rank = ({ moduleId, project }: TestSpecification): number => {
      const at = LONG.findIndex((name) => moduleId.startsWith(path.join(import.meta.dirname, name)));
      return (project.name === 'browser' ? 2 * LONG.length : 0) + (at < 0 ? LONG.length : at);
    };
    return (await super.sort(files)).toSorted((a, b) => rank(a) - rank(b));
  }
}

// Files of one worker share their modules: the core is read and compiled once.
const shared = {
  testTimeout: 120_000,
  maxWorkers: 2,
  isolate: false,
  // A busy machine answers late; what is awaited is awaited as long as here.
  expect: { poll: { timeout: 20_000 } },
  setupFiles: ['tests/support/seed.ts'],
  execArgv: quickFlags,
};
/** Files that put other modules in the place of some: each has its own. */
const ALONE = '{core,server,ui,cli,demo}/**/*.alone.test.ts';

export default defineConfig({
  test: {
    sequence: { sequencer: LongestFirst },
    projects: [
      {
        resolve: { alias },
        test: {
          ...shared,
          name: 'unit',
          include: ['{core,paper,server,ui,wire,workers,cli,demo}/**/*.test.ts'],
          exclude: [ALONE],
        },
      },
      { resolve: { alias }, test: { ...shared, name: 'alone', include: [ALONE], isolate: true } },
      {
        // The core in one file: tests of the application call it only now and then.
        resolve: {
          alias: [
            { find: /^@\/core$/, replacement: path.resolve(import.meta.dirname, 'dist/core.mjs') },
            { find: '@', replacement: import.meta.dirname },
          ],
        },
        test: {
          ...shared,
          name: 'browser',
          include: ['tests/**/*.test.ts'],
          globalSetup: ['tests/support/chromium.ts'],
          hookTimeout: 120_000,
        },
      },
    ],
  },
});
