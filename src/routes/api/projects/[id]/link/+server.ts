import { json } from '@sveltejs/kit';
import { addressesOf } from '$lib/server/addresses.ts';
import { database } from '$lib/server/database.ts';
import { linkOf, linkTo, nicknameOf, unlink } from '$lib/server/links.ts';
import { note } from '$lib/server/people.ts';
import { classOf } from '$lib/server/reach.ts';
import { projects } from '$lib/server/schema.ts';
import { eq } from 'drizzle-orm';

/** Whether there is a link, and since when. */
export const GET = ({ params }) => json(linkOf(database(), 'project', params.id) ?? null);
/** A link for the room: whoever has it may look, and take a copy. */
export function POST({ params, url }) {
  const token = linkTo(database(), 'project', params.id);
  return json({ addresses: addressesOf(url).map((a) => `${a}/open/${token}`) }, { status: 201 });
}
/** The link opens nothing any more; copies stay. */
export function DELETE({ params, locals: { who } }) {
  const store = database();
  unlink(store, 'project', params.id);
  const owner = store.select({ id: projects.owner }).from(projects).where(eq(projects.id, params.id)).get()!.id;
  const classId = classOf(store, owner);
  if (who.id !== owner && classId)
    note(store, 'link taken back', { teacherId: who.id, classId, whom: nicknameOf(store, projects, params.id) });
  return new Response(null, { status: 204 });
}
