import { json } from '@sveltejs/kit';
import { cardsAgain } from '$lib/server/classes.ts';
import { database } from '$lib/server/database.ts';

/** The pupil's card once more; it goes on being good. */
export const POST = ({ params }) =>
  json(cardsAgain(database(), params.id, params.pupil), { headers: { 'cache-control': 'no-store' } });
