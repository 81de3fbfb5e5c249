import { database } from '$lib/server/database.ts';
import { signedOf } from '$lib/server/people.ts';

/** `me`: who signed in */
export const load = ({ locals }) => ({ language: locals.language, me: signedOf(database(), locals.who) });
