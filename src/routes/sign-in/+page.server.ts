import { database } from '$lib/server/database.ts';
import { demoOf } from '$lib/server/demo.ts';
import { isHere } from '$lib/server/first.ts';
import { hasTeacher } from '$lib/server/people.ts';

/** `demo`: who teaches in the demo, and one of its class, for everybody to read; `isHere`: it is opened on the school computer itself. */
export const load = ({ getClientAddress, request }) => ({
  hasTeacher: hasTeacher(database()),
  isHere: isHere(getClientAddress(), request.headers),
  demo: demoOf(database())
});
