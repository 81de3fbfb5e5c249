import { openClass } from '$lib/server/classes.ts';
import { database } from '$lib/server/database.ts';
import { marksOf } from '$lib/server/marks.ts';

export const load = ({ params }) => ({
  id: params.id,
  name: openClass(database(), params.id)!.name,
  marks: marksOf(database(), params.id)
});
