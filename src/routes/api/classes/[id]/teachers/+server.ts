import { error, json } from '@sveltejs/kit';
import * as z from 'zod';
import { addHelper, handOver } from '$lib/server/classes.ts';
import { database } from '$lib/server/database.ts';
import { teacherCalled } from '$lib/server/people.ts';
import { say } from '../../../../../../core/words.ts';

const body = z.strictObject({ nickname: z.string().trim().min(1).max(80) });
async function teacherIn(request: Request) {
  const { data } = body.safeParse(await request.json().catch(() => undefined));
  const teacher = data && teacherCalled(database(), data.nickname);
  return teacher ?? error(404, say('There is no teacher called {name} here.', { name: data?.nickname ?? '' }));
}
/** Another teacher teaches the class too. */
export async function POST({ params, request }) {
  const { id, nickname } = await teacherIn(request);
  addHelper(database(), params.id, { id, nickname });
  return json({}, { status: 201 });
}
/** The class is another teacher's from now on. */
export async function PUT({ params, request }) {
  const { id, nickname } = await teacherIn(request);
  handOver(database(), params.id, { id, nickname });
  return new Response(null, { status: 204 });
}
