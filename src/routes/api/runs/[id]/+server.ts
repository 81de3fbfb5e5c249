import { error } from '@sveltejs/kit';
import * as z from 'zod';
import { database } from '$lib/server/database.ts';
import { changeRun, deleteRun, putRunFile, runFile } from '$lib/server/runs.ts';
import { say } from '../../../../../core/words.ts';

const body = z.object({
  name: z.string().trim().max(120).optional(),
  pinned: z.boolean().optional()
});
const none = (): never => error(404, say('There is no such run on this computer.'));

export function GET({ params }) {
  const file = runFile(database(), params.id);
  if (file === undefined) return none();
  return new Response(file, { headers: { 'content-type': 'application/jsonl; charset=utf-8' } });
}
export async function PATCH({ params, request }) {
  const parsed = body.safeParse(await request.json().catch(() => null));
  if (!parsed.success) error(400, say('A run can get another "name" and be "pinned".'));
  if (!changeRun(database(), params.id, parsed.data)) none();
  return new Response(null, { status: 204 });
}
/** The run's file with every sample, compressed. */
export async function PUT({ params, request }) {
  const put = await putRunFile(database(), params.id, new Uint8Array(await request.arrayBuffer()));
  if (typeof put === 'string') error(400, put);
  if (!put) none();
  return new Response(null, { status: 204 });
}
export function DELETE({ params }) {
  if (!deleteRun(database(), params.id)) none();
  return new Response(null, { status: 204 });
}
