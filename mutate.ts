/** npm run mutate -- FOLDER ...: Stryker over folders of the core, each with the tests that are to notice. */
import { spawnSync } from 'node:child_process';
import { copyFileSync } from 'node:fs';

/** Folders, and the tests that hold them beside their own. */
const FOLDERS: Record<string, string[]> = {
  'core/circuit': ['core/reckon/pages.test.ts', 'core/kit/kit.test.ts'],
  'core/link': [],
  'core/kit': ['core/language/python/fit.test.ts'],
  'core/reckon': [],
  'core/yard': ['core/run/machine.test.ts'],
  'core/run': ['core/yard/yard.test.ts'],
  'core/trace': [],
  'core/language/lookover': []
};
// the tests' transformer reads the tsconfig above, which stands on what this makes
spawnSync('npx', ['svelte-kit', 'sync'], { stdio: 'inherit' });
const asked = process.argv.slice(2);
for (const folder of asked.length ? asked : Object.keys(FOLDERS)) {
  const tests = [`${folder}/**/*.test.ts`, ...(FOLDERS[folder] ?? [])].join(' ');
  const { status } = spawnSync('npx', ['stryker', 'run', '--mutate', `${folder}/**/*.ts,!${folder}/**/*.test.ts`], {
    stdio: 'inherit',
    env: { ...process.env, MUTATE_TESTS: tests }
  });
  if (status) process.exit(status);
  for (const kind of ['json', 'html'])
    copyFileSync(
      `test-results/mutation/report.${kind}`,
      `test-results/mutation/${folder.replaceAll('/', '-')}.${kind}`
    );
}
