import { defineConfig } from '@playwright/test';

export default defineConfig({
  testDir: '.',
  testMatch: '*.spec.ts',
  outputDir: '../test-results',
  // Each file has a server and a browser of its own; half of their time is waiting.
  workers: 2,
  projects: [
    { name: 'pages', testIgnore: 'film.spec.ts' },
    // Measures sounds to the millisecond: nothing else runs beside it.
    { name: 'filming', testMatch: 'film.spec.ts', dependencies: ['pages'] },
  ],
  // On a machine shared with others a browser test may starve; it may then run once more, and the
  // report says so.
  retries: process.env['CI'] ? 1 : 0,
  // Nothing fails because the machine is busy: limits are for what never comes.
  timeout: 1_800_000,
  expect: { timeout: 600_000 },
  reporter: process.env['ZEST_REPORT']
    ? [['line'], ['json', { outputFile: process.env['ZEST_REPORT'] }]]
    : [['line']],
  use: { viewport: { width: 1280, height: 800 }, actionTimeout: 180_000, acceptDownloads: true },
});
