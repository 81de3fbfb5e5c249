import { json } from '@sveltejs/kit';
import { cardsAgain } from '$lib/server/classes.ts';
import { database } from '$lib/server/database.ts';

/** All cards once more. It is written down that they were shown, and nothing of them may be cached. */
export const POST = ({ params }) =>
  json(cardsAgain(database(), params.id), { headers: { 'cache-control': 'no-store' } });
