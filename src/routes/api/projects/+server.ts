import { error, json } from '@sveltejs/kit';
import { checkProject } from '../../../../core/project.ts';
import { database } from '$lib/server/database.ts';
import { createProject, listProjects } from '$lib/server/projects.ts';
import { say } from '../../../../core/words.ts';

/** A new project, from the shelf or from a file. */
export async function POST({ request }) {
  const read = checkProject(await request.json().catch(() => null), say('This project'));
  if (!read.ok) error(400, read.problem);
  const { id, version } = createProject(database(), read.project);
  return json({ id, version }, { status: 201 });
}
/** What is on the shelf, newest first. */
export const GET = () => json(listProjects(database()).map(({ id, name, device }) => ({ id, name, device })));
