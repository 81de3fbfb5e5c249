import { database } from '$lib/server/database.ts';
import { demoOf } from '$lib/server/demo.ts';
import { hasTeacher } from '$lib/server/people.ts';

/** `demo`: who teaches in the demo, and one of its class, for everybody to read. */
export const load = () => ({ hasTeacher: hasTeacher(database()), demo: demoOf(database()) });
