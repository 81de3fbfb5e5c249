import { error } from '@sveltejs/kit';
import { removeHelper, teachersOf } from '$lib/server/classes.ts';
import { database } from '$lib/server/database.ts';
import { say } from '../../../../../../../core/words.ts';

/** Somebody does not teach the class any more: helpers leave by themselves, or whose class it is takes them out. */
export function DELETE({ params, locals: { who } }) {
  const all = teachersOf(database(), params.id);
  const helper = all.find((t) => t.id === params.teacher && !t.own);
  const mayDo = helper && (helper.id === who.id || all.some((t) => t.own && t.id === who.id));
  if (!mayDo) error(403, say('You help with this class; its own teacher can do this.'));
  removeHelper(database(), params.id, helper);
  return new Response(null, { status: 204 });
}
