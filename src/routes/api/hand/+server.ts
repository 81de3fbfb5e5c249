import { error, json } from '@sveltejs/kit';
import * as z from 'zod';
import { addressesOf } from '$lib/server/addresses.ts';
import { tooMany } from '$lib/server/guard.ts';
import { openRoom } from '$lib/server/hands.ts';
import { say } from '../../../../core/words.ts';

/** A code for a phone, and the addresses under which the room's network has this computer; secure ones first. */
const body = z.object({ name: z.string().max(80).default('') });
export async function POST({ url, request, getClientAddress }) {
  if (await tooMany('new room', getClientAddress()))
    error(429, say('Too many hands were paired from here in a minute. Wait a little.'));
  const { data } = body.safeParse(await request.json().catch(() => ({})));
  const room = openRoom(data?.name);
  if (!room) error(503, say('All places for phones are taken. Let one go that is not needed.'));
  const { code, key } = room;
  return json({ code, key, addresses: addressesOf(url).map((a) => `${a}/hand?code=${code}`) }, { status: 201 });
}
