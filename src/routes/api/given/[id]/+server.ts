import { error, json } from '@sveltejs/kit';
import { openGiven } from '$lib/server/given.ts';
import { database } from '$lib/server/database.ts';
import { projectChanged } from '$lib/server/wall.ts';

/** The pupil's project of what was given, begun at the first time. */
export function POST({ params, locals: { who } }) {
  const opened = openGiven(database(), who.id, params.id);
  if (typeof opened === 'string') error(403, opened);
  projectChanged(database(), opened.id, {});
  return json(opened, { status: 201 });
}
