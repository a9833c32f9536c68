import { defineConfig } from 'vitest/config';

export default defineConfig({
  test: {
    projects: [
      {
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
          hookTimeout: 300_000,
          // Real ffmpeg on two cores: one file at a time.
          fileParallelism: false,
        },
      },
    ],
  },
});
