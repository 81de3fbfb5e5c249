import { error, json } from '@sveltejs/kit';
import { database } from '$lib/server/database.ts';
import { keepRun, listRuns } from '$lib/server/runs.ts';
import { say } from '../../../../../../core/words.ts';

export const GET = ({ params }) => json(listRuns(database(), params.id));

/** A run that is over: the body is its file, compressed; `?ms` how long it took. */
export async function POST({ params, request, url }) {
  const ms = Number(url.searchParams.get('ms'));
  if (!Number.isSafeInteger(ms) || ms < 0) error(400, say('A run is kept with "ms", how long it took.'));
  const kept = await keepRun(database(), params.id, new Uint8Array(await request.arrayBuffer()), ms);
  if (typeof kept === 'string') error(400, kept);
  if (!kept) error(404, say('There is no such project on this computer.'));
  return json(kept, { status: 201 });
}
