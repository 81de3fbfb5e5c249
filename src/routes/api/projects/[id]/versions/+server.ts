import { json } from '@sveltejs/kit';
import { database } from '$lib/server/database.ts';
import { listVersions } from '$lib/server/projects.ts';

/** A page of versions, newest first; `?before` a version. */
export const GET = ({ params, url }) =>
  json(listVersions(database(), params.id, Number(url.searchParams.get('before')) || undefined));
