import { createHash } from 'node:crypto';
import { CheckStatus } from '@stryker-mutator/api/check';
import { declareClassPlugin, declareValuePlugin, PluginKind } from '@stryker-mutator/api/plugin';

/** What people read is looked at by people, and by the messages' own test; a test of its letters would only say it twice. */
const SAYS = new Set(['say', 'later', 'word']);
/** With MUTATE_SAMPLE=4 a quarter of the changes is tried, drawn by where they are: the others count for nothing. */
const SAMPLE = Number(process.env.MUTATE_SAMPLE ?? 1);
class Sample {
  async init() {}
  async check(mutants) {
    const drawn = ({ fileName, location, replacement }) => {
      const where = [fileName.slice(fileName.lastIndexOf('core/')), JSON.stringify(location), replacement];
      return createHash('sha256').update(where.join()).digest().readUInt32BE() % SAMPLE === 0;
    };
    const said = {
      true: { status: CheckStatus.Passed },
      false: { status: CheckStatus.CompileError, reason: 'not drawn' }
    };
    return Object.fromEntries(mutants.map((m) => [m.id, said[String(drawn(m))]]));
  }
}

export const strykerPlugins = [
  declareClassPlugin(PluginKind.Checker, 'sample', Sample),
  declareValuePlugin(PluginKind.Ignore, 'words', {
    shouldIgnore(path) {
      const within = path.isStringLiteral() || path.isTemplateLiteral() ? path.parentPath : undefined;
      const call = within?.isConditionalExpression() ? within.parentPath : within;
      return call?.isCallExpression() && SAYS.has(call.node.callee.name) ? 'words' : undefined;
    }
  })
];

/**
 * Small changes to the core, one at a time, to see whether a test notices: `npm run mutate -- FOLDER ...`, or all folders
 * that mutate.ts names. Not part of the checks: it takes hours. Reports lie in test-results/mutation/.
 * @type {import('@stryker-mutator/api/core').PartialStrykerOptions}
 */
export default {
  plugins: ['@stryker-mutator/vitest-runner', './stryker.config.js'],
  ignorers: ['words'],
  checkers: SAMPLE > 1 ? ['sample'] : [],
  testRunner: 'vitest',
  vitest: { configFile: 'vitest.mutate.config.ts', related: false },
  coverageAnalysis: 'perTest',
  reporters: ['clear-text', 'json', 'html'],
  clearTextReporter: { allowColor: false, logTests: false, reportTests: false },
  htmlReporter: { fileName: 'test-results/mutation/report.html' },
  jsonReporter: { fileName: 'test-results/mutation/report.json' },
  // the application's tsconfig stands on what is generated, and that is not copied
  ignorePatterns: ['build', '.cli', 'data', 'docs/screenshots', 'test-results', 'e2e', 'static', '/tsconfig.json'],
  ignoreStatic: true,
  timeoutMS: 8000,
  concurrency: 3
};
