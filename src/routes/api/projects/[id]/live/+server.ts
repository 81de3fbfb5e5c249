import { database } from '$lib/server/database.ts';
import { stream } from '$lib/server/live.ts';
import { handIsUp } from '$lib/server/people.ts';
import { newestVersion } from '$lib/server/projects.ts';
import { comesIn } from '$lib/server/wall.ts';

/**
 * What happens to a project that is open: a new version, a run, a comment, who drives, where the teacher points. A pupil is
 * told on the same stream what is for the pupil and the class. Who comes back after a while is told the newest version first.
 */
export function GET({ params, locals: { who, still }, getClientAddress }) {
  const { classId } = who;
  let leaves: (() => void) | undefined;
  return stream(
    { who: who.id, address: getClientAddress() },
    [`project ${params.id}`, ...(classId ? [`person ${who.id}`, `class ${classId}`] : [])],
    still,
    () => {
      if (classId) leaves = comesIn(database(), classId, who.id);
      const version = newestVersion(database(), params.id);
      return { version, comment: true, shown: true, handUp: handIsUp(database(), who.id) };
    },
    () => leaves?.()
  );
}
