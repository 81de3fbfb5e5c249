import { json } from '@sveltejs/kit';
import { givenTo } from '$lib/server/given.ts';
import { database } from '$lib/server/database.ts';

export const GET = ({ locals }) => json(givenTo(database(), locals.who.id));
