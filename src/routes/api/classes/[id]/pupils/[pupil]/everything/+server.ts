import { openClass } from '$lib/server/classes.ts';
import { database } from '$lib/server/database.ts';
import { everythingOf } from '$lib/server/everything.ts';
import { note } from '$lib/server/people.ts';
import { heavy } from '$lib/server/pool.ts';
import { people } from '$lib/server/schema.ts';
import { eq } from 'drizzle-orm';

/** Everything that is kept of the pupil, in one file. */
export async function GET({ params }) {
  const store = database();
  const { nickname } = store.select().from(people).where(eq(people.id, params.pupil)).get()!;
  const zip = await heavy('zipped', everythingOf(store, params.pupil));
  note(store, 'data saved', { teacherId: openClass(store, params.id)?.teacherId, classId: params.id, whom: nickname });
  return new Response(zip as Uint8Array<ArrayBuffer>, {
    headers: {
      'content-type': 'application/zip',
      'cache-control': 'no-store',
      'content-disposition': `attachment; filename="pupil.zip"; filename*=UTF-8''${encodeURIComponent(nickname)}.zip`
    }
  });
}
