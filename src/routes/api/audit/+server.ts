import { json } from '@sveltejs/kit';
import { database } from '$lib/server/database.ts';
import { listAudit } from '$lib/server/classes.ts';

export const GET = ({ locals }) => json(listAudit(database(), locals.who.id));
