import { error, json } from '@sveltejs/kit';
import { database } from '$lib/server/database.ts';
import { openVersion } from '$lib/server/projects.ts';
import { say } from '../../../../../../../core/words.ts';

export function GET({ params }) {
  let project: ReturnType<typeof openVersion>;
  try {
    project = openVersion(database(), params.id, Number(params.version));
  } catch (problem) {
    error(422, (problem as Error).message);
  }
  if (!project) error(404, say('There is no such version: it was thinned out, or never was.'));
  return json(project);
}
