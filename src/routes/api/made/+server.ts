import { json } from '@sveltejs/kit';
import { database } from '$lib/server/database.ts';
import { listMade } from '$lib/server/made.ts';

export const GET = ({ locals }) => json(listMade(database(), locals.who.id));
