import { error, json } from '@sveltejs/kit';
import { readProject } from '../../../../core/project.ts';
import { database } from '$lib/server/database.ts';
import { createProject, findProjects, listProjects } from '$lib/server/projects.ts';
import { say } from '../../../../core/words.ts';

/** A new project, from the shelf or from a file: the body is the project's file. */
export async function POST({ request }) {
  const read = readProject(await request.text(), say('This project'));
  if (!read.ok) error(400, read.problem);
  const { id, version } = createProject(database(), read.project);
  return json({ id, version }, { status: 201 });
}
/** What is on the shelf, newest first: a page after a card, or what is found by words. */
export function GET({ url }) {
  const words = url.searchParams.get('find');
  if (words) return json(findProjects(database(), words.slice(0, 80)));
  if (url.searchParams.has('demo')) return json(listProjects(database(), { demo: true, most: 200 }));
  const [changedAt, id] = (url.searchParams.get('after') ?? '').split(' ');
  return json(
    listProjects(database(), {
      after: id ? { changedAt: Number(changedAt) || 0, id } : undefined
    })
  );
}
