import { listAudit } from '$lib/server/classes.ts';
import { database } from '$lib/server/database.ts';

export const load = ({ locals }) => ({ lines: listAudit(database(), locals.who.id) });
