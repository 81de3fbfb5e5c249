import { database } from '$lib/server/database.ts';
import { demoOf } from '$lib/server/demo.ts';
import { signedOf } from '$lib/server/people.ts';

/** `me`: who signed in; `isDemo`: everybody can read its teacher's passphrase */
export const load = ({ locals }) => ({
  language: locals.language,
  me: signedOf(database(), locals.who),
  isDemo: demoOf(database()) !== undefined
});
