import { database } from '$lib/server/database.ts';
import { stream } from '$lib/server/live.ts';
import { comesIn } from '$lib/server/wall.ts';

/** What a pupil is told: what was given, comments, questions of the teacher, a hand that was seen. */
export function GET({ locals: { who } }) {
  let leaves: (() => void) | undefined;
  return stream(
    [`person ${who.id}`, `class ${who.classId}`],
    () => {
      leaves = comesIn(database(), who.classId!, who.id);
      return undefined;
    },
    () => leaves?.()
  );
}
