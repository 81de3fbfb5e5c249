import { error } from '@sveltejs/kit';
import * as z from 'zod';
import { database } from '$lib/server/database.ts';
import { changeRun, deleteRun, runFile } from '$lib/server/runs.ts';
import { say } from '../../../../../core/words.ts';

const body = z.object({
  name: z.string().trim().max(120).optional(),
  pinned: z.boolean().optional(),
  file: z.string().optional()
});
const none = (): never => error(404, say('There is no such run on this computer.'));

export function GET({ params }) {
  const file = runFile(database(), params.id);
  if (file === undefined) return none();
  return new Response(file, { headers: { 'content-type': 'application/jsonl; charset=utf-8' } });
}
export async function PATCH({ params, request }) {
  const parsed = body.safeParse(await request.json().catch(() => null));
  if (!parsed.success) error(400, say('A run can get another "name", be "pinned", and get its whole "file".'));
  if (!changeRun(database(), params.id, parsed.data)) none();
  return new Response(null, { status: 204 });
}
export function DELETE({ params }) {
  if (!deleteRun(database(), params.id)) none();
  return new Response(null, { status: 204 });
}
