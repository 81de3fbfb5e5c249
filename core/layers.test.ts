import { ESLint } from 'eslint';
import { readdirSync, readFileSync } from 'node:fs';
import { describe, expect, it } from 'vitest';

const eslint = new ESLint();
/** What the linter says of a file of one line. */
async function said(filePath: string, line: string): Promise<string[]> {
  const [{ messages }] = await eslint.lintText(`${line}\n`, { filePath });
  return messages.filter((m) => m.ruleId === 'no-restricted-imports').map((m) => m.message);
}
const imports = (from: string): string => `export * from '${from}';`;

describe('the layers', () => {
  const forbidden: [string, string][] = [
    ['core/language/planted.ts', '../yard/yard.ts'],
    ['core/language/lookover/rules/planted.ts', '../../../yard/motor.ts'],
    ['core/language/planted.ts', '../run/bench.ts'],
    ['core/language/blocks/planted.ts', '../../trace/trace.ts'],
    ['core/kit/planted.ts', '../language/program.ts'],
    ['core/reckon/planted.ts', '../yard/yard.ts'],
    ['core/yard/planted.ts', '../run/machine.ts'],
    ['core/yard/planted.ts', '../language/values.ts'],
    ['core/trace/planted.ts', '../run/bench.ts'],
    ['core/trace/findings/planted.ts', '../../run/bench.ts'],
    ['core/run/planted.ts', '../../src/lib/workbench/runs.svelte.ts'],
    ['core/run/planted.ts', 'node:fs'],
    ['board/standin/planted.ts', '../../cli/standin.ts'],
    ['src/lib/workbench/planted.ts', '../../../core/run/bench.ts'],
    ['src/lib/workbench/planted.ts', '../../../board/standin/standin.ts'],
    ['src/lib/workbench/planted.ts', '$lib/server/projects.ts']
  ];
  it.each(forbidden)('%s may not import %s', async (file, from) => {
    expect(await said(file, imports(from))).toHaveLength(1);
  });
  const allowed: [string, string][] = [
    ['core/language/planted.ts', '../yard/mat.ts'],
    ['core/language/lookover/rules/planted.ts', '../../../kit/kit.ts'],
    ['core/yard/planted.ts', '../kit/kit.ts'],
    ['core/trace/planted.ts', '../language/program.ts'],
    ['core/run/planted.ts', '../yard/yard.ts'],
    ['src/lib/workbench/planted.ts', '../../../core/run/stops.ts'],
    ['src/workers/planted.ts', '../../core/run/bench.ts']
  ];
  it.each(allowed)('%s may import %s', async (file, from) => {
    expect(await said(file, imports(from))).toEqual([]);
  });
});

it('no code outside core/kit names a device: only kits, demo data and tests do', () => {
  const root = new URL('..', import.meta.url);
  const named = ['core', 'src', 'cli', 'board']
    .flatMap((folder) =>
      readdirSync(new URL(`${folder}/`, root), { recursive: true, encoding: 'utf8' }).map((f) => `${folder}/${f}`)
    )
    .filter((f) => /\.(ts|svelte)$/.test(f) && !/\.test\.ts$|^core\/(kit|testing)\//.test(f))
    .filter((f) =>
      /['"`](barrow|trowel|dibber|lantern|trug|saucer|hauler)['"`]/.test(readFileSync(new URL(f, root), 'utf8'))
    );
  expect(named).toEqual([]);
});
