import { database } from '$lib/server/database.ts';
import { stream } from '$lib/server/live.ts';
import { cardsOf } from '$lib/server/wall.ts';

/** The wall: every card at first, then those that change. */
export const GET = ({ params, locals, getClientAddress }) =>
  stream({ who: locals.who.id, address: getClientAddress() }, [`wall ${params.id}`], locals.still, () => ({
    cards: cardsOf(database(), params.id),
    all: true
  }));
