import { database } from '$lib/server/database.ts';
import { stream } from '$lib/server/live.ts';
import { shownIn } from '$lib/server/projects.ts';
import { openRoundOf } from '$lib/server/rounds.ts';
import { comesIn } from '$lib/server/wall.ts';

/** What a pupil is told: what was given, a round that is open, what is shown to the room; first what is so already. */
export function GET({ locals: { who, still }, getClientAddress }) {
  const classId = who.classId!;
  let leaves: (() => void) | undefined;
  return stream(
    { who: who.id, address: getClientAddress() },
    [`person ${who.id}`, `class ${classId}`],
    still,
    () => {
      leaves = comesIn(database(), classId, who.id);
      return { given: true, round: openRoundOf(database(), classId), ...shownIn(database(), classId) };
    },
    () => leaves?.()
  );
}
