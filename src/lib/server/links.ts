/** Links to projects and errands in the room: a repository over the database. */
import { and, desc, eq } from 'drizzle-orm';
import type { Errand } from '../../../core/errand/errand.ts';
import { say } from '../../../core/words.ts';
import type { Linked, PupilsLink } from '../class/class.ts';
import { addErrand, openErrand } from './errands.ts';
import { createProject, openProject } from './projects.ts';
import { errands, links, people, projects, type Store } from './schema.ts';
import { drawId } from './secrets.ts';

export type Kind = 'project' | 'errand';
const to = (kind: Kind, target: string) => and(eq(links.kind, kind), eq(links.target, target));

/** Since when there is one. */
export const linkOf = (store: Store, kind: Kind, target: string): { at: number } | undefined =>
  store.select({ at: links.at }).from(links).where(to(kind, target)).get();
/** Links that lead to projects of a class's pupils. */
export const linksOfClass = (store: Store, classId: string): PupilsLink[] =>
  store
    .select({ projectId: projects.id, name: projects.name, by: people.nickname, at: links.at })
    .from(links)
    .innerJoin(projects, and(eq(links.kind, 'project'), eq(projects.id, links.target)))
    .innerJoin(people, eq(people.id, projects.owner))
    .where(eq(people.classId, classId))
    .orderBy(desc(links.at))
    .all();
/** A link; the same again where it has one. */
export function linkTo(store: Store, kind: Kind, target: string): string {
  const known = store.select({ token: links.token }).from(links).where(to(kind, target)).get();
  if (known) return known.token;
  const token = drawId();
  store.insert(links).values({ token, kind, target, at: Date.now() }).run();
  return token;
}
export const unlink = (store: Store, kind: Kind, target: string): void =>
  void store.delete(links).where(to(kind, target)).run();
export const nicknameOf = (store: Store, table: typeof projects | typeof errands, id: string): string =>
  store
    .select({ by: people.nickname })
    .from(table)
    .innerJoin(people, eq(people.id, table.owner))
    .where(eq(table.id, id))
    .get()?.by ?? '';
/** What stands behind a link, as it is now, and whose it is. */
export function openLink(store: Store, token: string): Linked | undefined {
  const row = store.select().from(links).where(eq(links.token, token)).get();
  if (row?.kind === 'project') {
    const opened = openProject(store, row.target);
    return opened && { by: nicknameOf(store, projects, row.target), project: opened.project };
  }
  const errand = row && openErrand(store, row.target);
  // without its solution: whoever has the link is here to do it
  return errand && { by: nicknameOf(store, errands, row.target), errand: storyOf(errand) };
}
const storyOf = ({ name, story, goals }: Errand): Pick<Errand, 'name' | 'story' | 'goals'> => ({ name, story, goals });
/** A copy for who opened it, with where it came from. @returns its id */
export function copyOfLink(store: Store, token: string, owner: string): { id: string; kind: Kind } | undefined {
  const row = store.select().from(links).where(eq(links.token, token)).get();
  if (row?.kind === 'errand') {
    const errand = openErrand(store, row.target);
    return errand && { id: addErrand(store, errand, Date.now(), owner, true), kind: 'errand' };
  }
  const linked = openLink(store, token);
  if (!linked || !('project' in linked)) return undefined;
  const { id } = createProject(store, linked.project, { owner });
  const { name } = linked.project;
  const origin = linked.by ? say('{name} by {by}', { name, by: linked.by }) : name;
  store.update(projects).set({ origin }).where(eq(projects.id, id)).run();
  return { id, kind: 'project' };
}
