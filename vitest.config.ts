import { defineConfig } from 'vitest/config';
import { catalogues } from './apps/web/catalogues.ts';
import { WORKERS } from './apps/server/src/testing/workers.ts';

export default defineConfig({
  test: {
    maxWorkers: WORKERS,
    projects: [
      {
        plugins: [catalogues()],
        test: {
          name: 'core',
          include: ['packages/**/*.test.ts', 'demo/**/*.test.ts', 'apps/web/**/*.test.ts'],
          // Nothing fails because the machine is busy: a limit is for what never ends.
          testTimeout: 120_000,
          hookTimeout: 120_000,
        },
      },
      {
        test: {
          name: 'server',
          include: ['apps/server/**/*.test.ts'],
          globalSetup: 'apps/server/src/testing/database.ts',
          testTimeout: 300_000,
          // A shared machine may starve a test that waits for ffmpeg; it then runs once more, and
          // the report says so.
          retry: process.env['CI'] ? 1 : 0,
          hookTimeout: 300_000,
        },
      },
    ],
  },
});
