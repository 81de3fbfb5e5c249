import { error, json } from '@sveltejs/kit';
import { database } from '$lib/server/database.ts';
import { handedIn, withdraw } from '$lib/server/hand-ins.ts';
import { projectChanged } from '$lib/server/wall.ts';
import { say } from '../../../../../../../core/words.ts';

const none = () => error(404, say('There is nothing here.'));
/** The project as it was handed in. */
export const GET = ({ params }) => json(handedIn(database(), params.handIn) ?? none());
/** It is withdrawn: what was handed in before counts again. */
export function DELETE({ params }) {
  if (!withdraw(database(), params.handIn)) none();
  projectChanged(database(), params.id, { handIn: true });
  return new Response(null, { status: 204 });
}
