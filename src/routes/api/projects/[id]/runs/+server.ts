import { error, json } from '@sveltejs/kit';
import * as z from 'zod';
import { database } from '$lib/server/database.ts';
import { keepRun, listRuns } from '$lib/server/runs.ts';
import { say } from '../../../../../../core/words.ts';

const body = z.object({ file: z.string(), ms: z.number().int().min(0) });

export const GET = ({ params }) => json(listRuns(database(), params.id));

export async function POST({ params, request }) {
  const parsed = body.safeParse(await request.json().catch(() => null));
  if (!parsed.success) error(400, say('A run is kept with "file" and "ms".'));
  const kept = keepRun(database(), params.id, parsed.data.file, parsed.data.ms);
  if (typeof kept === 'string') error(400, kept);
  if (!kept) error(404, say('There is no such project on this computer.'));
  return json(kept, { status: 201 });
}
