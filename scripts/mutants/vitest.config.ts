import { defineConfig } from 'vitest/config';

/** One room of core with its own tests alone: a mutant counts as killed only where it is at home. */
export default defineConfig({
  test: {
    include: [`packages/core/src/${process.env['ROOM'] ?? 'time'}/**/*.test.ts`],
    setupFiles: ['scripts/mutants/fewer-runs.ts'],
    testTimeout: 600_000,
    maxWorkers: 1,
  },
});
