import { error, json } from '@sveltejs/kit';
import * as z from 'zod';
import { database } from '$lib/server/database.ts';
import { tell } from '$lib/server/live.ts';
import { decide, guess, openRound } from '$lib/server/rounds.ts';
import { say } from '../../../../../core/words.ts';

export const GET = ({ params, locals }) => json(openRound(database(), params.id, locals.who));

const m = z.number().min(-100).max(100);
const place = z.strictObject({ x: m, y: m });
const read = async (request: Request) => {
  const { data } = place.safeParse(await request.json().catch(() => undefined));
  return data ?? error(400, say('A place has an x and a y, in metres.'));
};
/** A pupil's guess; another one takes its place. */
export async function PUT({ params, request, locals }) {
  if (!guess(database(), params.id, locals.who.id, await read(request)))
    error(409, say('It has run already: what is said now does not count.'));
  tell(`round ${params.id}`, { guessed: true });
  return new Response(null, { status: 204 });
}
/** It ran: where it stopped. */
export async function POST({ params, request }) {
  decide(database(), params.id, await read(request));
  tell(`round ${params.id}`, { decided: true });
  return new Response(null, { status: 204 });
}
