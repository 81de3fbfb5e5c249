import { error, json } from '@sveltejs/kit';
import { readingSchema } from '$lib/class/reading.ts';
import { database } from '$lib/server/database.ts';
import { ofLesson } from '$lib/server/lessons.ts';
import { keepReading, readingOf } from '$lib/server/readings.ts';
import { say } from '../../../../../../core/words.ts';

/** How far one is oneself; null where it was not begun. */
export const GET = ({ params, locals }) => json(readingOf(database(), locals.who.id, params.id) ?? null);
export async function PUT({ params, request, locals }) {
  const { data } = readingSchema.safeParse(await request.json().catch(() => undefined));
  if (!data) error(400, say('These answers cannot be read.'));
  if (!ofLesson(database(), params.id)) error(404, say('There is no such lesson on this computer.'));
  keepReading(database(), locals.who.id, params.id, data);
  return new Response(null, { status: 204 });
}
