import { readdirSync, readFileSync } from 'node:fs';
import { describe, expect, it } from 'vitest';
import { barrow } from './kit/kit.ts';
import { LARGEST_FILE, migrate, newProject, readProject, VERSION, writeProject } from './project.ts';
import { longAisle } from './yard/mats.ts';

const folder = new URL('./testing/projects/', import.meta.url);

describe('projects of before', () => {
  const files = readdirSync(folder);
  it('of every version so far have a file here', () => {
    const versions = new Set(files.map((f) => Number(f.split('-')[0])));
    expect([...versions].sort()).toEqual(Array.from({ length: VERSION }, (_, i) => i + 1));
  });
  it.each(files)('%s opens, and is written as this version has it', (file) => {
    const text = readFileSync(new URL(file, folder), 'utf8');
    const read = readProject(text, file);
    if (!read.ok) throw new Error(read.problem);
    expect(read.project.version).toBe(VERSION);
    expect(readProject(writeProject(read.project))).toEqual(read);
  });
  it('are taken on step by step, each version to the next', () => {
    const upgrades = {
      1: (p: Record<string, unknown>) => ({ ...p, mat: { ...(p.mat as object), wet: false } }),
      2: (p: Record<string, unknown>) => ({ ...p, name: `${String(p.name)}!` })
    };
    const one = newProject('Pots', barrow, longAisle);
    expect(migrate(one, 3, upgrades)).toMatchObject({ version: 3, name: 'Pots!', mat: { wet: false } });
    expect(migrate({ ...one, version: 2 }, 3, upgrades)).toMatchObject({ version: 3, name: 'Pots!' });
    expect((migrate({ ...one, version: 2 }, 3, upgrades) as typeof one).mat).not.toHaveProperty('wet');
    expect(migrate(one)).toBe(one);
  });
});
it('a start outside of any yard is refused, with its place', () => {
  const project = { ...newProject('far', barrow, longAisle), start: { x: 1e12, y: 0.3, facingDeg: 90 } };
  const read = readProject(JSON.stringify(project), 'far.mossbell.json');
  expect(read.ok).toBe(false);
  expect(!read.ok && read.problem).toContain('at "start" "x"');
});
it('a project is as large as its file may be, and no larger, wherever it comes in', () => {
  const project = { ...newProject('Pots', barrow, longAisle), notebook: '' };
  const room = LARGEST_FILE - JSON.stringify(project).length;
  const padded = (n: number): string => JSON.stringify(project) + ' '.repeat(n);
  expect(readProject(padded(room)).ok).toBe(true);
  const read = readProject(padded(room + 1), 'big');
  expect(!read.ok && read.problem).toContain('big is 8 MB long. A project is at most 8 MB');
});
