import { database } from '$lib/server/database.ts';
import { listClasses } from '$lib/server/classes.ts';

export const load = ({ locals }) => ({ classes: listClasses(database(), locals.who.id) });
