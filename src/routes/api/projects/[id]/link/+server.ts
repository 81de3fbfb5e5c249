import { json } from '@sveltejs/kit';
import { addressesOf } from '$lib/server/addresses.ts';
import { database } from '$lib/server/database.ts';
import { linkTo, unlink } from '$lib/server/links.ts';

/** A link for the room: whoever has it may look, and take a copy. */
export function POST({ params, url }) {
  const token = linkTo(database(), 'project', params.id);
  return json({ addresses: addressesOf(url).map((a) => `${a}/open/${token}`) }, { status: 201 });
}
/** The link opens nothing any more; copies stay. */
export function DELETE({ params }) {
  unlink(database(), 'project', params.id);
  return new Response(null, { status: 204 });
}
