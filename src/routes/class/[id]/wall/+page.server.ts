import { openClass } from '$lib/server/classes.ts';
import { database } from '$lib/server/database.ts';
import { cardsOf } from '$lib/server/wall.ts';

export const load = ({ params }) => ({
  id: params.id,
  name: openClass(database(), params.id)!.name,
  cards: cardsOf(database(), params.id)
});
