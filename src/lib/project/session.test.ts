import 'fake-indexeddb/auto';
import { get, set } from 'idb-keyval';
import { readFileSync } from 'node:fs';
import { expect, it, vi } from 'vitest';
import { checkProject, type Project } from '../../../core/project.ts';
import type { OfClass } from '../class/class.ts';
import { Session } from './session.svelte.ts';

const folder = new URL('../../../core/testing/projects/demo-1/', import.meta.url);
/** a project as the version before wrote it */
const then = JSON.parse(readFileSync(new URL('wake-the-bell.mossbell.json', folder), 'utf8')) as Project;
const read = checkProject(then);
if (!read.ok) throw new Error(read.problem);
const now = read.project;

const answering = (version: number, of: OfClass) =>
  ((_url: string) => Promise.resolve(Response.json({ version, project: now, of, tab: 'theirs' }))) as typeof fetch;
const opened = async (
  id: string,
  kept: { base: number; project: unknown; tab?: string },
  version: number,
  of: OfClass = {}
): Promise<Session> => {
  await set(`mossbell.journal.${id}`, kept);
  return Session.open(id, answering(version, of));
};

it('work that a version before kept in this browser is taken up as this version has it', async () => {
  const session = await opened('a', { base: 4, project: { ...then, name: 'Mine' } }, 4);
  expect(session.project).toEqual({ ...now, name: 'Mine' });
  expect(session.past).toEqual([{ label: 'work taken up again', project: now }]);
});
it('and where it says the same as what was saved, no copy of it is made', async () => {
  const session = await opened('b', { base: 3, project: then }, 4);
  expect(session.project).toEqual(now);
  expect([session.otherId, session.trouble, await get('mossbell.journal.b')]).toEqual([undefined, '', undefined]);
});
it('what was kept by the tab that saved last goes on: its answer alone was lost; of another tab it is a copy', async () => {
  const mine = { base: 3, project: { ...then, name: 'Mine' } };
  const session = await opened('e', { ...mine, tab: 'theirs' }, 4);
  expect([session.project.name, session.newest, session.otherId]).toEqual(['Mine', 4, undefined]);
  vi.stubGlobal('fetch', (async () => Response.json({ id: 'copy', version: 1 })) as typeof fetch);
  const other = await opened('f', { ...mine, tab: 'another' }, 4);
  expect([other.project.name, other.otherId]).toEqual([now.name, 'copy']);
  vi.unstubAllGlobals();
});
it('what this Moss Bell cannot show is kept aside with a sentence, and the saved one opens', async () => {
  const strange = {
    ...now,
    program: { ...now.program, stacks: [{ id: 's', x: 0, y: 0, steps: [{ id: 'b', kind: 'no.such', slots: {} }] }] }
  };
  for (const [id, project] of [
    ['g', strange],
    ['h', { ...now, version: 99 }],
    ['i', undefined]
  ] as const) {
    const kept = { base: 4, project: project as typeof now };
    const session = await opened(id, kept, 4);
    expect(session.project).toEqual(now);
    expect(session.trouble).toMatch(/^Work from here cannot be shown: .* It stays kept in this browser\.$/);
    expect(await get(`mossbell.journal.${id}.aside`)).toEqual(kept);
    expect(await get(`mossbell.journal.${id}`)).toBeUndefined();
  }
});
it('what is only looked at is neither changed nor taken up nor kept: it is somebody else’s', async () => {
  const session = await opened('c', { base: 4, project: { ...then, name: 'Mine' } }, 4, { looks: true, by: 'Wren' });
  expect(session.project).toEqual(now);
  session.change('rename', { ...now, name: 'Another' });
  expect([session.project.name, session.past, session.saving]).toEqual([now.name, [], 'saved']);
  expect(await get('mossbell.journal.c')).toMatchObject({ base: 4 });
});
it('what was not saved when the other one of a pair took over is kept beside, and nothing tries to save any more', async () => {
  const asked: string[] = [];
  let looks = false;
  const server = (async (url: string, init?: RequestInit) => {
    asked.push(`${init?.method ?? 'GET'} ${url}`);
    if (init?.method === 'POST') return Response.json({ id: 'copy', version: 1 });
    return Response.json({ version: 5, project: now, of: { looks, partner: 'Plover' } });
  }) as typeof fetch;
  vi.stubGlobal('fetch', server);
  const session = await Session.open('d', server);
  session.change('rename', { ...now, name: 'Mine' });
  looks = true;
  await session.look();
  expect([session.project.name, session.saving, session.otherId]).toEqual([now.name, 'saved', 'copy']);
  expect(session.trouble).toContain('was kept as "Mine (changed here');
  await session.save();
  expect(asked.filter((a) => a.startsWith('PUT'))).toEqual([]);
  expect(await get('mossbell.journal.d')).toBeUndefined();
  vi.unstubAllGlobals();
});
