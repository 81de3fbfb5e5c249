import { error, json } from '@sveltejs/kit';
import { database } from '$lib/server/database.ts';
import { keepRun, listRuns } from '$lib/server/runs.ts';
import { projectChanged } from '$lib/server/wall.ts';
import { resultSchema, toldSchema } from '../../../../../../core/trace/tried.ts';
import { say } from '../../../../../../core/words.ts';

export const GET = ({ params }) => json(listRuns(database(), params.id));

/**
 * A run that is over: the body is its file, compressed; `?ms` how long it took, `?result` what a try of an errand came to,
 * `?told` its heaviest findings.
 */
export async function POST({ params, request, url }) {
  const ms = Number(url.searchParams.get('ms'));
  if (!Number.isSafeInteger(ms) || ms < 0) error(400, say('A run is kept with "ms", how long it took.'));
  const tried = url.searchParams.get('result');
  const result = tried === null ? undefined : resultSchema.safeParse(jsonOr(tried));
  if (result && !result.success) error(400, say('What came of this try cannot be read.'));
  const told = toldSchema.safeParse(jsonOr(url.searchParams.get('told') ?? '[]'));
  if (!told.success) error(400, say('What there is to know of this run cannot be read.'));
  const file = new Uint8Array(await request.arrayBuffer());
  const kept = await keepRun(database(), params.id, file, ms, { result: result?.data, told: told.data });
  if (typeof kept === 'string') error(400, kept);
  if (!kept) error(404, say('There is no such project on this computer.'));
  projectChanged(database(), params.id, { run: kept.id });
  return json(kept, { status: 201 });
}

function jsonOr(text: string): unknown {
  try {
    return JSON.parse(text);
  } catch {
    return undefined;
  }
}
