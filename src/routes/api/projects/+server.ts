import { error, json } from '@sveltejs/kit';
import { readProject } from '../../../../core/project.ts';
import { database } from '$lib/server/database.ts';
import { createProject, isOrder, listProjects } from '$lib/server/projects.ts';
import { PAGE_OF_SHELF } from '$lib/shelf/cards.ts';
import { say } from '../../../../core/words.ts';

/** A new project, from the shelf or from a file: the body is the project's file. */
export async function POST({ request, locals }) {
  const read = readProject(await request.text(), say('This project'));
  if (!read.ok) error(400, read.problem);
  const { id, version } = createProject(database(), read.project, { owner: locals.who.id });
  return json({ id, version }, { status: 201 });
}
/** What is on the shelf: a page, by `order` (date, name, device), `label` and the words of `find`, from the `from`-th on. */
export function GET({ url, locals }) {
  const of = (key: string) => url.searchParams.get(key);
  if (url.searchParams.has('demo')) return json(listProjects(database(), { demo: true, most: 200 }));
  const order = of('order');
  return json(
    listProjects(database(), {
      owner: locals.who.id,
      paired: locals.who.role === 'pupil',
      words: of('find')?.trim().slice(0, 80),
      label: of('label') ?? undefined,
      order: isOrder(order) ? order : undefined,
      from: Math.max(0, Math.trunc(Number(of('from'))) || 0),
      most: PAGE_OF_SHELF + 1
    })
  );
}
