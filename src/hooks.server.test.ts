import Database from 'better-sqlite3';
import { mkdtempSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { expect, it } from 'vitest';
import { handleError } from './hooks.server.ts';

const told = (error: unknown): string =>
  (handleError({ error, event: {} as never, status: 500, message: '' }) as { message: string }).message;

it('a database that is locked, full or read-only is told in words', () => {
  const file = join(mkdtempSync(join(tmpdir(), 'mossbell-lock-')), 'x.sqlite');
  const one = new Database(file, { timeout: 20 });
  one.exec('create table t (a); begin exclusive');
  const two = new Database(file, { timeout: 20 });
  let locked: unknown;
  try {
    two.exec('insert into t values (1)');
  } catch (error) {
    locked = error;
  }
  expect(told(locked)).toContain('The database is busy');
  one.exec('commit');
  two.pragma('max_page_count = 2');
  let full: unknown;
  try {
    two.exec(`insert into t values ('${'x'.repeat(100_000)}')`);
  } catch (error) {
    full = error;
  }
  expect(told(full)).toContain('disk of the school computer is full');
  let readonly: unknown;
  try {
    new Database(file, { readonly: true }).exec('insert into t values (1)');
  } catch (error) {
    readonly = error;
  }
  expect(told(readonly)).toContain('cannot be written');
});
