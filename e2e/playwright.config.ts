import { defineConfig } from '@playwright/test';

export default defineConfig({
  testDir: '.',
  testMatch: '*.spec.ts',
  outputDir: '../test-results',
  // Encoders and browsers share two cores.
  workers: 1,
  timeout: 180_000,
  expect: { timeout: 20_000 },
  reporter: process.env['ZEST_REPORT'] ? [['line'], ['json', { outputFile: process.env['ZEST_REPORT'] }]] : [['line']],
  use: { viewport: { width: 1280, height: 800 }, actionTimeout: 15_000, acceptDownloads: true },
});
