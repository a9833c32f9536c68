// How many faults put into a room of core its own tests find:
//   ROOM=checks SHARE=4 npm run mutants
// ROOM is a folder of packages/core/src, SHARE takes one piece of code in so many.
const room = process.env['ROOM'] ?? 'time';

export default {
  testRunner: 'vitest',
  plugins: ['@stryker-mutator/vitest-runner', './scripts/mutants/sample.mjs'],
  ignorers: ['sample'],
  vitest: { configFile: 'scripts/mutants/vitest.config.ts', related: false },
  mutate: [`packages/core/src/${room}/**/*.ts`, '!**/*.test.ts', '!**/index.ts'],
  coverageAnalysis: 'perTest',
  ignoreStatic: true,
  concurrency: 2,
  timeoutMS: 30_000,
  dryRunTimeoutMinutes: 30,
  reporters: ['clear-text', 'json'],
  jsonReporter: { fileName: `.mutants/${room}.json` },
  clearTextReporter: { allowColor: false, reportTests: false, logTests: false },
  disableTypeChecks: true,
  tempDirName: '.mutants/tmp',
  cleanTempDir: 'always',
};
