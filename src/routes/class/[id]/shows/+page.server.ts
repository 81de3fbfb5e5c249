import { openClass } from '$lib/server/classes.ts';
import { database } from '$lib/server/database.ts';
import { classShows } from '$lib/server/shows.ts';

export const load = ({ params, url }) => ({
  id: params.id,
  name: openClass(database(), params.id)!.name,
  shows: classShows(database(), params.id, url.searchParams.get('given') ?? undefined)
});
