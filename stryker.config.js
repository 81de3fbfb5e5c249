/**
 * Small changes to the core, one at a time, to see whether a test notices: `npm run mutate -- FOLDER ...`, or all folders
 * that mutate.ts names. Not part of the checks: it takes hours. Reports lie in test-results/mutation/.
 * @type {import('@stryker-mutator/api/core').PartialStrykerOptions}
 */
export default {
  testRunner: 'vitest',
  vitest: { configFile: 'vitest.mutate.config.ts' },
  coverageAnalysis: 'perTest',
  reporters: ['clear-text', 'json', 'html'],
  clearTextReporter: { allowColor: false, logTests: false, reportTests: false },
  htmlReporter: { fileName: 'test-results/mutation/report.html' },
  jsonReporter: { fileName: 'test-results/mutation/report.json' },
  // the application's tsconfig stands on what is generated, and that is not copied
  ignorePatterns: ['build', '.cli', 'data', 'docs/screenshots', 'test-results', 'e2e', 'static', '/tsconfig.json'],
  ignoreStatic: true,
  timeoutMS: 20000,
  concurrency: 2
};
