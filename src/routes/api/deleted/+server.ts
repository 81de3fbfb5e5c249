import { json } from '@sveltejs/kit';
import { database } from '$lib/server/database.ts';
import { listDeleted } from '$lib/server/projects.ts';

/** What was taken off the shelf and can be taken back. */
export const GET = ({ locals }) => json(listDeleted(database(), Date.now(), locals.who.id));
